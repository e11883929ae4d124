import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'

/** Where a system keeps the bytes of its volumes. */
export interface VolumeBytes {
  /** Writes and flushes; @returns how many extents the volume stores now */
  write(volumeId: string, offset: bigint, data: Buffer): number
  read(volumeId: string, offset: bigint, length: number): Buffer
  /** Gives back the extents that lie wholly inside; @returns how many the volume stores now */
  discard(volumeId: string, offset: bigint, length: number): number
  forget(volumeId: string): void
}

/** Bytes that hosts really wrote: one file an extent, so that a volume of any size takes only what was written to it. */
export class BlockStore implements VolumeBytes {
  constructor(
    private readonly folder: string,
    private readonly extentBytes: number,
  ) {}

  /** Writes and flushes; @returns how many extents the volume stores now */
  write(volumeId: string, offset: bigint, data: Buffer): number {
    mkdirSync(this.#folderOf(volumeId), { recursive: true })
    for (const { extent, from, at, length } of this.#spans(offset, data.length)) {
      const path = this.#file(volumeId, extent)
      const file = openSync(path, existsSync(path) ? 'r+' : 'w+')
      writeSync(file, data, from, length, at)
      fsyncSync(file)
      closeSync(file)
    }
    return this.count(volumeId)
  }

  /** What was never written reads as zeros, as on a thin volume. */
  read(volumeId: string, offset: bigint, length: number): Buffer {
    const data = Buffer.alloc(length)
    for (const { extent, from, at, length: part } of this.#spans(offset, length)) {
      const path = this.#file(volumeId, extent)
      if (existsSync(path)) readFileSync(path).copy(data, from, at, at + part)
    }
    return data
  }

  /** Gives back the extents that lie wholly inside; @returns how many the volume stores now */
  discard(volumeId: string, offset: bigint, length: number): number {
    for (const { extent, length: part } of this.#spans(offset, length)) {
      if (part === this.extentBytes) rmSync(this.#file(volumeId, extent), { force: true })
    }
    return this.count(volumeId)
  }

  forget(volumeId: string): void {
    rmSync(this.#folderOf(volumeId), { recursive: true, force: true })
  }

  count(volumeId: string): number {
    return existsSync(this.#folderOf(volumeId)) ? readdirSync(this.#folderOf(volumeId)).length : 0
  }

  #folderOf(volumeId: string): string {
    return join(this.folder, volumeId)
  }

  #file(volumeId: string, extent: bigint): string {
    return join(this.#folderOf(volumeId), `${extent}.extent`)
  }

  #spans(offset: bigint, length: number): { extent: bigint; from: number; at: number; length: number }[] {
    const size = BigInt(this.extentBytes)
    const spans = []
    for (let from = 0; from < length;) {
      const position = offset + BigInt(from)
      const at = Number(position % size)
      const part = Math.min(length - from, this.extentBytes - at)
      spans.push({ extent: position / size, from, at, length: part })
      from += part
    }
    return spans
  }
}
