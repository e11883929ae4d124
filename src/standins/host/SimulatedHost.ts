import { createHash } from 'node:crypto'
import { WendrelError, type Refusal } from '@/core/errors'
import { hostAccess, type SimulatedArray, type VolumeEntity } from '../array'
import { seededHex, type Store } from '../fleet'
import {
  format,
  grow,
  readFile,
  readSuperblock,
  removeFile,
  usedBytes,
  writeFile,
  type Superblock,
} from './FileSystems'

export interface HostModel {
  readonly name: string
  readonly operatingSystem: string
  readonly initiators: readonly string[]
}

/** A disk as the host saw it at its last rescan. */
interface Device {
  readonly naa: string
  readonly sizeBytes: string
  readonly lun: number
  readonly path: string
}

/** A line of the host's table of file systems: what it mounts by itself when it starts. */
interface Mount {
  readonly naa: string
  readonly uuid: string
  readonly path: string
  readonly isMounted: boolean
}

interface HostState {
  readonly logins: readonly string[]
  readonly devices: readonly Device[]
  readonly mounts?: readonly Mount[]
  readonly boots?: number
  /** When it is up again, in wall milliseconds. */
  readonly upAt?: number
}

/** The bytes of a disk that a host sees, through its mapping. */
export interface DiskBytes {
  readonly sizeBytes: bigint
  readonly read: (offset: bigint, length: number) => Buffer
  readonly write: (offset: bigint, data: Buffer) => void
}

const rebootMilliseconds = 1500

/** What a host's agent refuses. */
export class HostRefused extends WendrelError {
  readonly code = 'standin.host-refused'
  constructor(
    readonly status: number,
    refusal: Refusal,
  ) {
    super(refusal)
  }
}

const most = 64 * 1024 * 1024

interface Reachable {
  readonly array: SimulatedArray
  readonly volume: VolumeEntity
  readonly lun: number
  readonly isReadOnly: boolean
}

/** A host with its initiators. It reaches an array's bytes only through a login and a mapping, as its rescan found them. */
export class SimulatedHost {
  constructor(
    readonly model: HostModel,
    private readonly store: Store,
    private readonly arrays: readonly SimulatedArray[],
  ) {}

  /** Whether it is starting, and answers nothing. */
  get isStarting(): boolean {
    return (this.state.upAt ?? 0) > Date.now()
  }

  get bootId(): string {
    return seededHex('boot', `${this.model.name}/${this.state.boots ?? 0}`, 32)
  }

  /** Goes down and comes up again: what is mounted at every start is mounted where its disk is found. */
  reboot(): void {
    const { boots = 0, mounts = [] } = this.state
    const down = mounts.map(each => ({ ...each, isMounted: false }))
    this.#save({ ...this.state, boots: boots + 1, mounts: down, upAt: Date.now() + rebootMilliseconds })
    const devices = this.rescan()
    const up = down.map(each => ({
      ...each,
      isMounted: devices.some(({ naa }) => naa === each.naa) && this.#superblock(each.naa)?.uuid === each.uuid,
    }))
    this.#save({ ...this.state, mounts: up })
  }

  fileSystems() {
    return this.state.devices.flatMap(({ naa }) => {
      const found = this.#superblock(naa)
      const mount = this.state.mounts?.find(each => each.naa === naa)
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
              mountsAt: mount?.path ?? null,
            },
          ]
    })
  }

  format(naa: string, fileSystem: Superblock['fileSystem'], label: string): void {
    const disk = this.#disk(naa)
    if (readSuperblock(disk) !== undefined)
      throw refuse(
        409,
        'No file system was made.',
        'One stands on the disk already.',
        'Mount it, or choose another disk.',
      )
    format(disk, fileSystem, label, seededHex('file system', `${naa}/${Date.now()}`, 32))
  }

  mount(naa: string, path: string): void {
    const found = readSuperblock(this.#disk(naa))
    if (found === undefined)
      throw refuse(409, 'Nothing was mounted.', 'No file system stands on the disk.', 'Make one first.')
    const others = (this.state.mounts ?? []).filter(each => each.naa !== naa)
    const there = others.find(each => each.path === path)
    if (there !== undefined)
      throw refuse(409, 'Nothing was mounted.', `Another disk is mounted at ${path}.`, 'Choose another path.')
    const twin = others.find(each => each.uuid === found.uuid && each.isMounted)
    if (twin !== undefined)
      throw refuse(
        409,
        'Nothing was mounted.',
        `A file system of the same identifier is mounted at ${twin.path}.`,
        'Give the copy a new identifier.',
      )
    this.#save({ ...this.state, mounts: [...others, { naa, uuid: found.uuid, path, isMounted: true }] })
  }

  unmount(path: string): void {
    this.#save({ ...this.state, mounts: (this.state.mounts ?? []).filter(each => each.path !== path) })
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

  removeFile(path: string): void {
    const { disk, superblock, within } = this.#mounted(path)
    removeFile(disk, superblock, within)
  }

  /** The file system in which a path lies, and what the path is within it. */
  #mounted(path: string) {
    const mount = (this.state.mounts ?? [])
      .filter(each => each.isMounted && (path === each.path || path.startsWith(`${each.path}/`)))
      .sort((a, b) => b.path.length - a.path.length)[0]
    const disk = mount === undefined ? undefined : this.#disk(mount.naa)
    const superblock = disk === undefined ? undefined : readSuperblock(disk)
    if (mount === undefined || disk === undefined || superblock === undefined)
      throw refuse(404, 'Nothing was done.', `Nothing is mounted at ${path}.`, 'Mount it first.')
    return { disk, superblock, within: path.slice(mount.path.length + 1) }
  }

  #superblock(naa: string): Superblock | undefined {
    try {
      return readSuperblock(this.#disk(naa))
    } catch (cause) {
      if (cause instanceof HostRefused) return undefined
      throw cause
    }
  }

  /** A disk's bytes, each time through what the array shows this host now. */
  #disk(naa: string): DiskBytes {
    const { volume } = this.#open(naa, 0n, 1)
    const size = this.state.devices.find(each => each.naa === naa)?.sizeBytes ?? volume.sizeBytes
    return {
      sizeBytes: BigInt(size),
      read: (offset, length) => {
        const { array, volume } = this.#open(naa, offset, length)
        return array.blocks.read(volume.id, offset, length)
      },
      write: (offset, data) => {
        const { array, volume } = this.#openToWrite(naa, offset, data.length)
        const storedExtents = array.blocks.write(volume.id, offset, data)
        if (storedExtents !== volume.storedExtents)
          array.store.commit([array.entry('volumes', { ...volume, storedExtents })])
      },
    }
  }

  get state(): HostState {
    return this.store.one<HostState>('hosts', this.model.name) ?? { logins: [], devices: [] }
  }

  login(target: string): void {
    if (this.model.initiators.length === 0)
      throw refuse(409, 'The host did not log in.', 'It has no initiator.', 'Configure an initiator on the host.')
    const array = this.arrays.find(each => each.model.ports.some(port => port.target === target))
    if (array === undefined)
      throw refuse(
        502,
        'The host did not log in.',
        `No target answers to ${target}.`,
        'Check the name and the network.',
      )
    if (array.faults.strikes(array.model.name, 'not-answering') !== undefined)
      throw refuse(504, 'The host did not log in.', 'The target does not answer.', 'Try again.')
    if (this.state.logins.includes(target)) return
    this.#save({ ...this.state, logins: [...this.state.logins, target] })
  }

  rescan(): readonly Device[] {
    const seen = new Map<string, Device>()
    for (const { volume, lun } of this.#reachable()) {
      seen.set(volume.naa, {
        naa: volume.naa,
        sizeBytes: volume.sizeBytes,
        lun,
        path: `/dev/disk/by-id/wwn-0x${volume.naa}`,
      })
    }
    const devices = [...seen.values()]
    this.#save({ ...this.state, devices })
    return devices
  }

  /** Writes bytes that follow from a seed. @returns their SHA-256, computed before they leave the host */
  write(naa: string, offset: bigint, length: number, seed: string): string {
    const { array, volume } = this.#openToWrite(naa, offset, length)
    const data = patternOf(seed, length)
    const storedExtents = array.blocks.write(volume.id, offset, data)
    if (storedExtents !== volume.storedExtents)
      array.store.commit([array.entry('volumes', { ...volume, storedExtents })])
    return sha256(data)
  }

  /** @returns the SHA-256 of the bytes as they are stored */
  read(naa: string, offset: bigint, length: number): string {
    const { array, volume } = this.#open(naa, offset, length)
    return sha256(array.blocks.read(volume.id, offset, length))
  }

  discard(naa: string, offset: bigint, length: number): void {
    const { array, volume } = this.#openToWrite(naa, offset, length)
    const storedExtents = array.blocks.discard(volume.id, offset, length)
    array.store.commit([array.entry('volumes', { ...volume, storedExtents })])
  }

  #openToWrite(naa: string, offset: bigint, length: number): Reachable {
    const opened = this.#open(naa, offset, length)
    if (opened.isReadOnly)
      throw refuse(
        403,
        'Nothing was written.',
        'The disk is a snapshot: it can only be read.',
        'Clone it to write to it.',
      )
    return opened
  }

  #open(naa: string, offset: bigint, length: number): Reachable {
    const device = this.state.devices.find(each => each.naa === naa)
    if (device === undefined)
      throw refuse(
        404,
        `No disk ${naa} is here.`,
        'The last rescan did not find it.',
        'Map the volume to the host and rescan.',
      )
    if (length <= 0 || length > most)
      throw refuse(400, 'Nothing was done.', `A request covers 1 to ${most} bytes.`, 'Ask for less.')
    if (offset < 0n || offset + BigInt(length) > BigInt(device.sizeBytes))
      throw refuse(400, 'Nothing was done.', 'The range ends beyond the disk.', 'Stay inside the disk.')
    const now = this.#reachable().find(each => each.volume.naa === naa)
    if (now === undefined)
      throw refuse(403, `The disk ${naa} does not answer.`, 'The array no longer shows it to this host.', 'Rescan.')
    return now
  }

  #reachable(): Reachable[] {
    return this.arrays
      .filter(array => array.model.ports.some(port => this.state.logins.includes(port.target)))
      .flatMap(array =>
        this.model.initiators.flatMap(initiator =>
          hostAccess.visibleTo(array, initiator).map(seen => ({ array, ...seen })),
        ),
      )
  }

  #save(state: HostState): void {
    this.store.put('hosts', this.model.name, state)
  }
}

const refuse = (status: number, what: string, why: string, remedy: string) =>
  new HostRefused(status, { what, why, remedy })
const sha256 = (data: Buffer) => createHash('sha256').update(data).digest('hex')

/** Bytes that no block repeats: each block of an extent's 4 KiB is keyed by seed and place. */
function patternOf(seed: string, length: number): Buffer {
  const block = 4096
  const data = Buffer.alloc(length)
  for (let at = 0; at < length; at += block) {
    const line = Buffer.from(seededHex(seed, `${at}`, 64), 'hex')
    for (let within = at; within < Math.min(at + block, length); within += line.length) line.copy(data, within)
  }
  return data
}
