import { type Faults, type FleetClock, seededHex, type Entry, type Store } from '../fleet'
import type {
  ArrayModel,
  ConnectionEntity,
  ConsistencyEntity,
  CountersEntity,
  DriveEntity,
  EndpointEntity,
  GroupEntity,
  LineageEntity,
  PoolEntity,
  SnapshotEntity,
  TaskEntity,
  UsageEntity,
  VolumeEntity,
} from './entities'
import type { FileServiceEntity, FileShareEntity, FileSystemEntity, ReachedDirectory } from './fileEntities'
import { notFound } from './Refused'
import type { VolumeBytes } from './BlockStore'

export const extentBytes = 1024n * 1024n

const ofVolumes: ReadonlySet<TaskEntity['work']> = new Set([
  'zero-volume',
  'flush-snapshot',
  'copy-clone',
  'restore-volume',
  'move-volume',
  'mirror-volume',
])

type Collections = {
  readonly drives: DriveEntity
  readonly pools: PoolEntity
  readonly volumes: VolumeEntity
  readonly snapshots: SnapshotEntity
  readonly lineages: LineageEntity
  readonly consistencyGroups: ConsistencyEntity
  readonly fileServices: FileServiceEntity
  readonly fileSystems: FileSystemEntity
  readonly fileShares: FileShareEntity
  readonly endpoints: EndpointEntity
  readonly groups: GroupEntity
  readonly connections: ConnectionEntity
  readonly tasks: TaskEntity
  readonly usageByHour: UsageEntity
  readonly usageByDay: UsageEntity
  readonly loadCounters: CountersEntity
  readonly loadsByHour: CountersEntity
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

  /** Arrays with which it has been paired: volumes are mirrored to them. */
  partners: readonly SimulatedArray[] = []

  /** The directory that it can reach on its network, and where. */
  directory: ReachedDirectory | undefined

  /** On what file services stand: its controllers, or the nodes of a cluster. */
  fileUnits: FileUnits = {
    all: () => this.model.controllers.map(id => `Controller ${id}`),
    downSince: unit => (this.isControllerDown(unit.replace('Controller ', '')) ? 0 : null),
  }

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

  /** Whether a controller is out: nothing goes through its ports until the fault is cleared. */
  isControllerDown(controller: string): boolean {
    return this.faults
      .all()
      .some(
        each => each.kind === 'controller-down' && each.target === this.model.name && each.controller === controller,
      )
  }

  writtenBytes(volume: VolumeEntity): bigint {
    if (!volume.isThin) return BigInt(volume.sizeBytes)
    const extents =
      volume.cloneOf === undefined ? volume.storedExtents : (this.blocks.copies?.ownExtents(volume.id) ?? 0)
    // What is written takes whole extents.
    const accounted = (BigInt(volume.workloadBytes) + extentBytes - 1n) / extentBytes
    return (accounted + BigInt(extents)) * extentBytes
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

  task(
    name: string,
    work: TaskEntity['work'],
    subjectId: string,
    body: object,
    lanes: TaskEntity['lanes'],
  ): TaskEntity {
    const kind =
      work === 'flush-group'
        ? 'ConsistencyGroups'
        : work === 'start-file-service'
          ? 'Oem/FileServices'
          : ofVolumes.has(work)
            ? 'Volumes'
            : 'StoragePools'
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

/** IEEE registered extended, NAA 6: the array's own part, then a number of what it names, never used twice. */
export const naaFor = (array: SimulatedArray, id: string) =>
  `6${seededHex(array.model.serial, 'naa', 15)}${seededHex(array.model.serial, `${id}/${array.clock.now()}`, 16)}`

/** The parts of a system on which the instances of a file service stand. */
export interface FileUnits {
  readonly all: () => readonly string[]
  /** Since when one is down (fleet milliseconds); null for one that is up. */
  readonly downSince: (unit: string) => number | null
}

export interface ExtraWork {
  /** Why a task cannot go on, or undefined. */
  readonly halted: (task: TaskEntity) => string | undefined
  /** Called as more of it is done. */
  readonly progressed: (task: TaskEntity, doneRatio: number) => void
  readonly ended: (task: TaskEntity) => readonly Entry[]
}
