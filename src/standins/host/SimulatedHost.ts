import { createHash } from 'node:crypto'
import { blockLoads, blockMirrors, hostAccess, type SimulatedArray, type VolumeEntity } from '../array'
import { seededHex, type Store } from '../fleet'
import type { DiskBytes, FileServers } from '../files'
import { HostMounts } from './HostMounts'
import { HostShares } from './HostShares'
import { refuse } from './HostRefused'
import { patternOf } from './patternOf'
import type { Device, HostModel, HostState, ShownSecrets } from './hostState'

const rebootMilliseconds = 1500

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
    private readonly servers: FileServers,
  ) {}

  /** Whether it is starting, and answers nothing. */
  get isStarting(): boolean {
    return (this.state.upAt ?? 0) > Date.now()
  }

  get credential(): string | undefined {
    return this.state.credential
  }

  setCredential(credential: string): void {
    this.#save({ ...this.state, credential })
  }

  get bootId(): string {
    return seededHex('boot', `${this.model.name}/${this.state.boots ?? 0}`, 32)
  }

  /** Goes down and comes up again: what is mounted at every start is mounted where its disk is found. */
  reboot(): void {
    const { boots = 0, mounts = [], shares = [] } = this.state
    const down = mounts.map(each => ({ ...each, isMounted: false }))
    const unmounted = shares.map(each => ({ ...each, isMounted: false }))
    this.#save({
      ...this.state,
      boots: boots + 1,
      mounts: down,
      shares: unmounted,
      upAt: Date.now() + rebootMilliseconds,
    })
    this.rescan()
    this.files.mountAll()
    this.shares.mountAll()
  }

  /** What stands on its disks, and where it is mounted. */
  readonly files = new HostMounts({
    devices: () => this.state.devices.map(({ naa }) => naa),
    disk: naa => this.#disk(naa),
    mounts: () => this.state.mounts ?? [],
    keep: mounts => this.#save({ ...this.state, mounts }),
  })

  /** What it has mounted over the network. */
  get shares(): HostShares {
    return new HostShares(this.servers, this.model.addresses[0] ?? '', {
      all: () => this.state.shares ?? [],
      keep: shares => this.#save({ ...this.state, shares }),
    })
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
        blockMirrors.write(array, volume.id, offset, data)
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
    const trouble = this.#loginTrouble(array, this.state.signIn ?? null)
    if (trouble !== undefined)
      throw refuse(403, 'The host did not log in.', trouble, 'Give the host and the target the same secret.')
    hostAccess.noteLogin(array, this.model.initiators)
    this.#save({ ...this.state, logins: [...this.state.logins, target] })
  }

  /** By what it proves itself from its next login on. */
  setSignIn(secrets: ShownSecrets | null): void {
    this.#save({ ...this.state, signIn: secrets ?? undefined })
  }

  /** What a login with some secrets would come to; it alters nothing. @returns why it is not let in */
  tryLogin(target: string, secrets: ShownSecrets | null): string | undefined {
    const array = this.arrays.find(each => each.model.ports.some(port => port.target === target))
    return array === undefined ? `No target answers to ${target}.` : this.#loginTrouble(array, secrets)
  }

  #loginTrouble(array: SimulatedArray, secrets: ShownSecrets | null): string | undefined {
    return this.model.initiators
      .map(each => hostAccess.loginTrouble(array, each, secrets))
      .find(each => each !== undefined)
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
    blockMirrors.write(array, volume.id, offset, data)
    return sha256(data)
  }

  /** @returns the SHA-256 of the bytes as they are stored */
  read(naa: string, offset: bigint, length: number): string {
    const { array, volume } = this.#open(naa, offset, length)
    return sha256(array.blocks.read(volume.id, offset, length))
  }

  /** Reads as fast as it can. @returns how many requests it gets in a second, and how fast its time goes */
  readFast(naa: string, bytesEach: number): { readonly requestsPerSecond: number; readonly rate: number } {
    const { array, volume } = this.#open(naa, 0n, bytesEach)
    array.blocks.read(volume.id, 0n, bytesEach)
    return { requestsPerSecond: blockLoads.fastest(array, volume, bytesEach), rate: array.clock.rate }
  }

  discard(naa: string, offset: bigint, length: number): void {
    const { array, volume } = this.#openToWrite(naa, offset, length)
    blockMirrors.discard(array, volume.id, offset, length)
  }

  /** The ways to a disk: one to each target, to which this host has logged in, of the arrays that show it; both ends of a mirror do. */
  withWays(device: Device) {
    const showing = new Set(this.#reachable().flatMap(each => (each.volume.naa === device.naa ? [each.array] : [])))
    const paths = [...showing].flatMap(array =>
      array.model.ports
        .filter(({ target }) => this.state.logins.includes(target))
        .map(({ target, controller }) => ({ target, isUp: !array.isControllerDown(controller) })),
    )
    return { ...device, paths }
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
    // The end of a mirror that follows is read and written through the other one.
    const now = this.#reachable().find(each => each.volume.naa === naa && each.volume.mirror?.role !== 'target')
    if (now === undefined)
      throw refuse(403, `The disk ${naa} does not answer.`, 'The array no longer shows it to this host.', 'Rescan.')
    if (this.withWays(device).paths.every(({ isUp }) => !isUp))
      throw refuse(
        503,
        `The disk ${naa} does not answer.`,
        'All ways to it are down.',
        'Look at the ports and controllers.',
      )
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

const sha256 = (data: Buffer) => createHash('sha256').update(data).digest('hex')
