import { closeSync, existsSync, ftruncateSync, mkdirSync, openSync, readSync, rmSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import type { DriveEntity } from '../array'
import { seededHex } from '../fleet'

/** The sectors of drives outside any cluster: what earlier uses left is really there, in a sparse file each. */
export class RawDrives {
  constructor(private readonly folder: string) {
    mkdirSync(folder, { recursive: true })
  }

  /** Puts a partition table and some data on a drive, as an earlier use has left them. */
  leaveOver(drive: DriveEntity, seed: string): void {
    const file = openSync(this.#path(drive), 'w+')
    ftruncateSync(file, Number(drive.capacityBytes))
    for (const offset of leftOverOffsets(Number(drive.capacityBytes)))
      writeSync(file, Buffer.from(seededHex(seed, `${offset}`, 64).repeat(16), 'hex'), 0, 512, offset)
    closeSync(file)
  }

  read(drive: DriveEntity, offset: number, length: number): Buffer {
    const data = Buffer.alloc(length)
    const path = this.#path(drive)
    if (!existsSync(path)) return data
    const file = openSync(path, 'r')
    readSync(file, data, 0, length, offset)
    closeSync(file)
    return data
  }

  erase(drive: DriveEntity): void {
    rmSync(this.#path(drive), { force: true })
  }

  #path(drive: DriveEntity): string {
    return join(this.folder, `${drive.serial}.sectors`)
  }
}

/** Where left-over bytes lie: the table at both ends, and two file systems between. */
const leftOverOffsets = (capacity: number) => [0, 1_048_576, Math.floor(capacity / 2 / 4096) * 4096, capacity - 4096]
