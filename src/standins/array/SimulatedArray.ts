import { shareOf } from '@/core/layout'
import { type Faults, type FleetClock, seededHex, type Entry, type Store } from '../fleet'
import type {
  ArrayModel,
  ConnectionEntity,
  DriveEntity,
  EndpointEntity,
  GroupEntity,
  PoolEntity,
  TaskEntity,
  VolumeEntity,
} from './entities'
import { badValue, conflict, notFound } from './Refused'
import { layGroups } from './layGroups'
import type { VolumeBytes } from './BlockStore'

const metadataRatio = 0.0075
export const extentBytes = 1024n * 1024n

type Collections = {
  readonly drives: DriveEntity
  readonly pools: PoolEntity
  readonly volumes: VolumeEntity
  readonly endpoints: EndpointEntity
  readonly groups: GroupEntity
  readonly connections: ConnectionEntity
  readonly tasks: TaskEntity
}

/** The workings of one array: what its requests do to its drives, pools, volumes and mappings. Knows no protocol. */
export class SimulatedArray {
  constructor(
    readonly model: ArrayModel,
    readonly store: Store,
    readonly clock: FleetClock,
    readonly faults: Faults,
    readonly blocks: VolumeBytes,
  ) {}

  /** What work of other kinds does as it goes on and when it ends; set by whoever starts such work. */
  extraWork: ExtraWork | undefined

  all<K extends keyof Collections>(kind: K): Collections[K][] {
    return this.store.all<Collections[K]>(this.#in(kind))
  }

  maybe<K extends keyof Collections>(kind: K, id: string): Collections[K] | undefined {
    return this.store.one<Collections[K]>(this.#in(kind), id)
  }

  one<K extends keyof Collections>(kind: K, id: string): Collections[K] {
    const found = this.maybe(kind, id)
    if (found === undefined) throw notFound(`${kind}/${id}`)
    return found
  }

  entry<K extends keyof Collections>(kind: K, value: Collections[K]): Entry {
    return { collection: this.#in(kind), id: value.id, value }
  }

  gone(kind: keyof Collections, id: string): Entry {
    return { collection: this.#in(kind), id, value: null }
  }

  writtenBytes(volume: VolumeEntity): bigint {
    if (!volume.isThin) return BigInt(volume.sizeBytes)
    return BigInt(volume.workloadBytes) + BigInt(volume.storedExtents) * extentBytes
  }

  poolWrittenBytes(poolId: string): bigint {
    return this.all('volumes').reduce(
      (sum, volume) => (volume.poolId === poolId ? sum + this.writtenBytes(volume) : sum),
      0n,
    )
  }

  poolProvisionedBytes(poolId: string): bigint {
    return this.all('volumes').reduce(
      (sum, volume) => (volume.poolId === poolId ? sum + BigInt(volume.sizeBytes) : sum),
      0n,
    )
  }

  /** Space for volumes: usable less metadata and reserves. */
  poolDataBytes(pool: PoolEntity): bigint {
    const reserves = BigInt(pool.snapshotReserveBytes) + BigInt(pool.spread?.rebuildReserveBytes ?? 0)
    return BigInt(pool.usableBytes) - BigInt(pool.metadataBytes) - reserves
  }

  createPool(request: PoolRequest): TaskEntity {
    if (this.all('pools').some(pool => pool.name === request.name)) {
      throw conflict(`Pool ${request.name} was not made.`, 'A pool of that name exists.', 'Choose another name.')
    }
    const chosen = [...request.groups.flat(), ...request.spares]
    if (new Set(chosen).size !== chosen.length)
      throw badValue('The pool was not made.', 'A drive is named twice.', 'Name each drive once.')
    const drives = new Map(chosen.map(id => [id, this.one('drives', id)]))
    for (const drive of drives.values()) {
      if (drive.role !== 'unassigned' || drive.isFailed) {
        throw conflict(
          `Pool ${request.name} was not made.`,
          `Drive ${drive.serial} is ${drive.isFailed ? 'failed' : 'in use'}.`,
          'Choose another drive.',
        )
      }
    }
    const { usableBytes } = layGroups(
      request.groups.map(group => group.map(id => BigInt(drives.get(id)?.capacityBytes ?? '0'))),
      request.raidType,
    )
    const rawBytes = [...drives.values()].reduce((sum, drive) => sum + BigInt(drive.capacityBytes), 0n)
    const metadataBytes = shareOf(rawBytes, metadataRatio)
    const pool: PoolEntity = {
      id: this.nextId('pools', request.name),
      name: request.name,
      description: request.description,
      raidType: request.raidType,
      groups: request.groups,
      spares: request.spares,
      isReady: false,
      rawBytes: `${rawBytes}`,
      usableBytes: `${usableBytes}`,
      spread: null,
      metadataBytes: `${metadataBytes}`,
      snapshotReserveBytes: `${shareOf(usableBytes - metadataBytes, request.snapshotReserveRatio)}`,
    }
    const placed = [...drives.values()].map(drive => {
      const groupIndex = request.groups.findIndex(group => group.includes(drive.id))
      return this.entry('drives', {
        ...drive,
        poolId: pool.id,
        groupIndex: groupIndex < 0 ? null : groupIndex,
        role: groupIndex < 0 ? 'spare' : 'data',
      })
    })
    const task = this.task(
      `Initialise pool ${pool.name}`,
      'initialise-pool',
      pool.id,
      request,
      this.#lanesOf(request.groups.flat(), 0.8),
    )
    this.store.commit([...placed, this.entry('pools', pool), this.entry('tasks', task)])
    return task
  }

  removePool(id: string): void {
    const pool = this.one('pools', id)
    if (this.all('volumes').some(volume => volume.poolId === id)) {
      throw conflict(`Pool ${pool.name} was not removed.`, 'It holds volumes.', 'Remove its volumes first.')
    }
    const freed = this.all('drives').filter(drive => drive.poolId === id)
    const tasks = this.all('tasks').filter(task => task.subjectId === id && task.state === 'Running')
    this.store.commit([
      ...freed.map(drive => this.entry('drives', { ...drive, poolId: null, groupIndex: null, role: 'unassigned' })),
      ...tasks.map(task =>
        this.entry('tasks', {
          ...task,
          state: 'Exception',
          endedAt: this.clock.now(),
          message: 'The pool was removed.',
        }),
      ),
      this.gone('pools', id),
    ])
  }

  /** @returns the task of a thick volume, whose extents are zeroed first; undefined for a thin one, which is ready at once */
  createVolume(request: VolumeRequest): { readonly volume: VolumeEntity; readonly task: TaskEntity | undefined } {
    const pool = this.one('pools', request.poolId)
    if (!pool.isReady)
      throw conflict(
        `Volume ${request.name} was not made.`,
        `Pool ${pool.name} is still being initialised.`,
        'Wait for its task.',
      )
    if (this.all('volumes').some(volume => volume.name === request.name)) {
      throw conflict(`Volume ${request.name} was not made.`, 'A volume of that name exists.', 'Choose another name.')
    }
    if (request.sizeBytes <= 0n)
      throw badValue('The volume was not made.', 'Its size must be above zero.', 'Give a size.')
    const freeBytes = this.poolDataBytes(pool) - this.poolWrittenBytes(pool.id)
    if (!request.isThin && request.sizeBytes > freeBytes) {
      throw conflict(
        `Volume ${request.name} was not made.`,
        `Pool ${pool.name} has ${freeBytes} bytes left.`,
        'Ask for less, or for a thin volume.',
      )
    }
    const id = this.nextId('volumes', request.name)
    const volume: VolumeEntity = {
      id,
      poolId: pool.id,
      name: request.name,
      description: request.description,
      // IEEE registered extended, NAA 6: the array's own part, then the volume's number, never used twice.
      naa: `6${seededHex(this.model.serial, 'naa', 15)}${seededHex(this.model.serial, `${id}/${this.clock.now()}`, 16)}`,
      sizeBytes: `${request.sizeBytes}`,
      isThin: request.isThin,
      workloadBytes: '0',
      storedExtents: 0,
      isReady: request.isThin,
    }
    if (request.isThin) {
      this.store.commit([this.entry('volumes', volume)])
      return { volume, task: undefined }
    }
    const task = this.#zeroing(volume, Number(request.sizeBytes), request)
    this.store.commit([this.entry('volumes', volume), this.entry('tasks', task)])
    return { volume, task }
  }

  /** @returns the task that zeroes the new part of a thick volume, undefined for a thin one */
  enlargeVolume(id: string, sizeBytes: bigint, description: string): TaskEntity | undefined {
    const volume = this.one('volumes', id)
    const pool = this.one('pools', volume.poolId)
    const addedBytes = sizeBytes - BigInt(volume.sizeBytes)
    if (addedBytes < 0n)
      throw badValue(`${volume.name} was not resized.`, 'A volume cannot be made smaller.', 'Give a larger size.')
    if (!volume.isThin && addedBytes > this.poolDataBytes(pool) - this.poolWrittenBytes(pool.id)) {
      throw conflict(`${volume.name} was not resized.`, `Pool ${pool.name} has too little left.`, 'Ask for less.')
    }
    const larger = this.entry('volumes', { ...volume, sizeBytes: `${sizeBytes}` })
    if (volume.isThin || addedBytes === 0n) {
      this.store.commit([larger])
      return undefined
    }
    const task = this.#zeroing(volume, Number(addedBytes), { description })
    this.store.commit([larger, this.entry('tasks', task)])
    return task
  }

  renameVolume(id: string, name: string): void {
    if (this.all('volumes').some(volume => volume.name === name && volume.id !== id))
      throw conflict('The volume was not renamed.', `A volume named ${name} exists.`, 'Choose another name.')
    this.store.commit([this.entry('volumes', { ...this.one('volumes', id), name })])
  }

  describeVolume(id: string, description: string): void {
    this.store.commit([this.entry('volumes', { ...this.one('volumes', id), description })])
  }

  removeVolume(id: string): void {
    const volume = this.one('volumes', id)
    if (this.all('connections').some(connection => connection.volumeId === id)) {
      throw conflict(`${volume.name} was not removed.`, 'It is mapped to hosts.', 'Remove its mappings first.')
    }
    this.store.commit([this.gone('volumes', id)])
    this.blocks.forget(id)
  }

  task(
    name: string,
    work: TaskEntity['work'],
    subjectId: string,
    body: object,
    lanes: TaskEntity['lanes'],
  ): TaskEntity {
    const kind = work === 'zero-volume' ? 'Volumes' : 'StoragePools'
    return {
      id: this.nextId('tasks', name),
      name,
      targetUri: `/redfish/v1/Storage/1/${kind}`,
      method: 'POST',
      jsonBody: JSON.stringify(body, (_, value: unknown) => (typeof value === 'bigint' ? `${value}` : value)),
      resultUri: `/redfish/v1/Storage/1/${kind}/${subjectId}`,
      work,
      subjectId,
      state: 'Running',
      startedAt: this.clock.now(),
      endedAt: null,
      lanes,
      workedSeconds: 0,
      message: '',
    }
  }

  #zeroing(volume: VolumeEntity, bytes: number, body: object): TaskEntity {
    const pool = this.one('pools', volume.poolId)
    const rate = this.#lanesOf(pool.groups.flat(), 0.6).reduce((sum, lane) => sum + lane.bytesPerSecond, 0)
    return this.task(`Zero ${volume.name}`, 'zero-volume', volume.id, body, [{ bytes, bytesPerSecond: rate }])
  }

  /** @param share of a drive's rate that the work gets; hosts have the rest */
  #lanesOf(driveIds: readonly string[], share: number): TaskEntity['lanes'] {
    return driveIds.map(id => {
      const drive = this.one('drives', id)
      return { bytes: Number(drive.capacityBytes), bytesPerSecond: drive.bytesPerSecond * share }
    })
  }

  #in(kind: keyof Collections): string {
    return `${this.model.name}/${kind}`
  }

  /** Ids are never used twice: they follow a counter that only grows. */
  nextId(kind: string, name: string): string {
    const counters = this.store.one<{ last: number }>(`${this.model.name}/counters`, kind) ?? { last: 0 }
    this.store.put(`${this.model.name}/counters`, kind, { last: counters.last + 1 })
    return kind === 'tasks' || kind === 'connections'
      ? `${counters.last + 1}`
      : `${counters.last + 1}-${seededHex(this.model.serial, name, 4)}`
  }
}

export interface ExtraWork {
  /** Why a task cannot go on, or undefined. */
  readonly halted: (task: TaskEntity) => string | undefined
  /** Called as more of it is done. */
  readonly progressed: (task: TaskEntity, doneRatio: number) => void
  readonly ended: (task: TaskEntity) => readonly Entry[]
}

export interface PoolRequest {
  readonly name: string
  readonly description: string
  readonly raidType: PoolEntity['raidType']
  readonly groups: readonly (readonly string[])[]
  readonly spares: readonly string[]
  readonly snapshotReserveRatio: number
}

export interface VolumeRequest {
  readonly name: string
  readonly description: string
  readonly poolId: string
  readonly sizeBytes: bigint
  readonly isThin: boolean
}
