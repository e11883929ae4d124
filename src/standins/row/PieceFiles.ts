import { createHash } from 'node:crypto'
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs'
import { flushed } from '../fleet'
import { join } from 'node:path'

const headerBytes = 16

/**
 * Pieces as they lie on drives: a file each, with the version of the write that made it and a checksum before its bytes, so that a
 * stale or torn piece is never taken for a good one.
 */
export class PieceFiles {
  constructor(private readonly folder: string) {}

  write(driveId: string, volumeId: string, extent: bigint, index: number, version: number, bytes: Uint8Array): void {
    const path = this.#path(driveId, volumeId, extent, index)
    mkdirSync(join(this.folder, driveId, volumeId), { recursive: true })
    const header = Buffer.alloc(headerBytes)
    header.writeBigUInt64BE(BigInt(version), 0)
    sumOf(bytes).copy(header, 8, 0, 8)
    const file = openSync(`${path}.next`, 'w')
    writeSync(file, header)
    writeSync(file, bytes)
    flushed(file)
    closeSync(file)
    renameSync(`${path}.next`, path)
  }

  /** The piece, if it is there, whole, and of that version. */
  read(driveId: string, volumeId: string, extent: bigint, index: number, version: number): Uint8Array | undefined {
    const path = this.#path(driveId, volumeId, extent, index)
    if (!existsSync(path)) return undefined
    const whole = readFileSync(path)
    if (whole.length < headerBytes || whole.readBigUInt64BE(0) !== BigInt(version)) return undefined
    const bytes = new Uint8Array(whole.subarray(headerBytes))
    return sumOf(bytes).subarray(0, 8).equals(whole.subarray(8, headerBytes)) ? bytes : undefined
  }

  remove(driveId: string, volumeId: string, extent: bigint, index: number): void {
    rmSync(this.#path(driveId, volumeId, extent, index), { force: true })
  }

  /** A drive that is emptied or lost for good holds nothing any more. */
  empty(driveId: string): void {
    rmSync(join(this.folder, driveId), { recursive: true, force: true })
  }

  forgetVolume(driveId: string, volumeId: string): void {
    rmSync(join(this.folder, driveId, volumeId), { recursive: true, force: true })
  }

  #path(driveId: string, volumeId: string, extent: bigint, index: number): string {
    return join(this.folder, driveId, volumeId, `${extent}.${index}`)
  }
}

const sumOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest()
