import { seededHex } from '../fleet'
import {
  bytesOf,
  format,
  grow,
  keepFile,
  readFile,
  readSuperblock,
  removeFile,
  usedBytes,
  writeFile,
  type DiskBytes,
  type Superblock,
} from '../files'
import { HostRefused, refuse } from './HostRefused'

/** A line of the host's table of file systems: what it mounts by itself when it starts. */
export interface Mount {
  readonly naa: string
  readonly uuid: string
  readonly path: string
  readonly isMounted: boolean
  /** Until the next start only, and never written: a copy of a file system beside the one that it is of. */
  readonly isReadOnly?: boolean
}

/** What a host's file systems stand on. */
interface Disks {
  readonly devices: () => readonly string[]
  /** @throws {HostRefused} where the host does not see it */
  readonly disk: (naa: string) => DiskBytes
  readonly mounts: () => readonly Mount[]
  readonly keep: (mounts: readonly Mount[]) => void
}

/** The largest file (bytes). */
const most = 64 * 1024 * 1024

/** A host's file systems: made, mounted now and at every start, and the files in them. */
export class HostMounts {
  constructor(private readonly disks: Disks) {}

  /** What is mounted at every start is mounted where its disk is found, and is still the one. */
  mountAll(): void {
    const devices = this.disks.devices()
    const lasting = this.disks.mounts().filter(each => each.isReadOnly !== true)
    const up = lasting.map(each => ({
      ...each,
      isMounted: devices.includes(each.naa) && this.#superblock(each.naa)?.uuid === each.uuid,
    }))
    this.disks.keep(up)
  }

  fileSystems() {
    return this.disks.devices().flatMap(naa => {
      const found = this.#superblock(naa)
      const mount = this.disks.mounts().find(each => each.naa === naa)
      return found === undefined
        ? []
        : [
            {
              naa,
              fileSystem: found.fileSystem,
              uuid: found.uuid,
              sizeBytes: found.sizeBytes,
              usedBytes: `${usedBytes(found)}`,
              mountedAt: mount?.isMounted === true ? mount.path : null,
              mountsAt: mount?.isReadOnly === true ? null : (mount?.path ?? null),
            },
          ]
    })
  }

  format(naa: string, fileSystem: Superblock['fileSystem'], label: string): void {
    const disk = this.disks.disk(naa)
    if (readSuperblock(disk) !== undefined)
      throw refuse(
        409,
        'No file system was made.',
        'One stands on the disk already.',
        'Mount it, or choose another disk.',
      )
    format(disk, fileSystem, label, seededHex('file system', `${naa}/${Date.now()}`, 32))
  }

  mount(naa: string, path: string, isReadOnly = false): void {
    const found = readSuperblock(this.disks.disk(naa))
    if (found === undefined)
      throw refuse(409, 'Nothing was mounted.', 'No file system stands on the disk.', 'Make one first.')
    const others = this.disks.mounts().filter(each => each.naa !== naa)
    const there = others.find(each => each.path === path)
    if (there !== undefined)
      throw refuse(409, 'Nothing was mounted.', `Another disk is mounted at ${path}.`, 'Choose another path.')
    const twin = isReadOnly
      ? undefined
      : others.find(each => each.uuid === found.uuid && each.isMounted && each.isReadOnly !== true)
    if (twin !== undefined)
      throw refuse(
        409,
        'Nothing was mounted.',
        `A file system of the same identifier is mounted at ${twin.path}.`,
        'Give the copy a new identifier.',
      )
    this.disks.keep([...others, { naa, uuid: found.uuid, path, isMounted: true, isReadOnly }])
  }

  unmount(path: string): void {
    this.disks.keep(this.disks.mounts().filter(each => each.path !== path))
  }

  grow(path: string): bigint {
    const { disk, superblock } = this.#mounted(path)
    return grow(disk, superblock)
  }

  writeFile(path: string, length: number, seed: string): string {
    if (length <= 0 || length > most)
      throw refuse(400, 'Nothing was written.', `A file has 1 to ${most} bytes.`, 'Ask for less.')
    const { disk, superblock, within } = this.#mounted(path)
    const sum = writeFile(disk, superblock, within, length, seed)
    if (sum === undefined)
      throw refuse(507, 'The file was not written.', 'The file system is full.', 'Make room, or grow it.')
    return sum
  }

  readFile(path: string): string {
    const { disk, superblock, within } = this.#mounted(path)
    const sum = readFile(disk, superblock, within)
    if (sum === undefined) throw refuse(404, 'The file was not read.', `No file is at ${path}.`, 'Look where it is.')
    return sum
  }

  /** What stands at the new place is never written over. */
  copyFile(from: string, to: string): string {
    const source = this.#mounted(from)
    const data = bytesOf(source.disk, source.superblock, source.within)
    if (data === undefined) throw refuse(404, 'The file was not copied.', `No file is at ${from}.`, 'Look where it is.')
    const target = this.#mounted(to)
    if (readFile(target.disk, target.superblock, target.within) !== undefined)
      throw refuse(409, 'The file was not copied.', `A file is at ${to} already.`, 'Copy it to another name.')
    const sum = keepFile(target.disk, target.superblock, target.within, data)
    if (sum === undefined)
      throw refuse(507, 'The file was not copied.', 'The file system is full.', 'Make room, or grow it.')
    return sum
  }

  removeFile(path: string): void {
    const { disk, superblock, within } = this.#mounted(path)
    removeFile(disk, superblock, within)
  }

  /** The file system in which a path lies, and what the path is within it. */
  #mounted(path: string) {
    const mount = this.disks
      .mounts()
      .filter(each => each.isMounted && (path === each.path || path.startsWith(`${each.path}/`)))
      .sort((a, b) => b.path.length - a.path.length)[0]
    const disk = mount === undefined ? undefined : this.disks.disk(mount.naa)
    const superblock = disk === undefined ? undefined : readSuperblock(disk)
    if (mount === undefined || disk === undefined || superblock === undefined)
      throw refuse(404, 'Nothing was done.', `Nothing is mounted at ${path}.`, 'Mount it first.')
    return { disk, superblock, within: path.slice(mount.path.length + 1) }
  }

  #superblock(naa: string): Superblock | undefined {
    try {
      return readSuperblock(this.disks.disk(naa))
    } catch (cause) {
      if (cause instanceof HostRefused) return undefined
      throw cause
    }
  }
}
