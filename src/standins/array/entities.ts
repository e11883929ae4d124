/** The parts of a simulated array as they are kept in the store. Bytes are decimal text; times are fleet milliseconds. */
/** Read errors that are corrected at a further try, and come faster from day to day. */
export interface ErrorCourse {
  /** Fleet milliseconds. */
  readonly since: number
  readonly perDay: number
  readonly doublingDays: number
}

export interface DriveEntity {
  readonly id: string
  readonly enclosureId: string
  readonly bay: number
  readonly media: 'HDD' | 'SSD'
  readonly protocol: 'NVMe' | 'SAS'
  readonly formFactor: 'Drive2_5' | 'Drive3_5'
  readonly rotationSpeedRpm: number | null
  readonly capacityBytes: string
  readonly model: string
  readonly serial: string
  readonly wwn: string
  readonly firmware: string
  readonly bytesPerSecond: number
  readonly hoursAtStart: number
  readonly lifeLeftPercent: number | null
  /** How it errs; absent where it does not. */
  readonly errors?: ErrorCourse
  readonly isFailed: boolean
  /** Its bay is empty: what is on it is kept, as on a shelf. */
  readonly isPulled: boolean
  readonly isBoot: boolean
  readonly isLit: boolean
  readonly writesPerDay: number | null
  /** What an earlier use has left, as its first sectors tell; the bytes themselves are on the drive. */
  readonly leftOver: {
    readonly system: string | null
    readonly lastUsedAt: string | null
    readonly partitions: readonly string[]
  } | null
  readonly poolId: string | null
  readonly groupIndex: number | null
  readonly role: 'unassigned' | 'data' | 'spare' | 'cache'
}

export interface PoolEntity {
  readonly id: string
  readonly name: string
  readonly description: string
  readonly raidType: RaidType
  readonly groups: readonly (readonly string[])[]
  readonly spares: readonly string[]
  readonly isReady: boolean
  readonly rawBytes: string
  readonly usableBytes: string
  readonly metadataBytes: string
  readonly snapshotReserveBytes: string
  /** How a cluster's pool spreads its pieces; null for RAID groups of an array. */
  readonly spread: SpreadLayout | null
}

export type SpreadScheme =
  | { readonly kind: 'copies'; readonly copies: number }
  | { readonly kind: 'erasure'; readonly dataPieces: number; readonly parityPieces: number }

export interface BankEntity {
  readonly nodeId: string
  readonly number: number
  readonly cache: string
  readonly capacity: readonly string[]
}

export interface SpreadLayout {
  readonly scheme: SpreadScheme
  readonly domain: 'node' | 'enclosure' | 'rack'
  readonly banks: readonly BankEntity[]
  readonly keepsReserve: boolean
  readonly rebuildReserveBytes: string
  readonly strandedBytes: string
  /** Of a drive's and link's rate that moving and making anew may take (0 to 1). */
  readonly rateShare: number
}

export const raidTypes = ['RAID1', 'RAID1Triple', 'RAID5', 'RAID6', 'RAID6TP'] as const
export type RaidType = (typeof raidTypes)[number]

export interface VolumeEntity {
  readonly id: string
  readonly poolId: string
  readonly name: string
  readonly description: string
  readonly naa: string
  readonly sizeBytes: string
  readonly isThin: boolean
  /** Accounted for workloads of the seed, whose bytes are not stored. */
  readonly workloadBytes: string
  /** Extents that hosts have really written. */
  readonly storedExtents: number
  readonly isReady: boolean
  /** Of the accounted bytes, how many its workload overwrites in a day of fleet time. */
  readonly changedBytesPerDay?: string
  /** The snapshot that it still shares extents with; absent for a volume that stands alone. */
  readonly cloneOf?: string
  /** The pool to which it is moving; hosts read and write it in its own until it has arrived. */
  readonly movingTo?: string | undefined
  /** With what volume of another array it is kept alike; absent for one that stands alone. */
  readonly mirror?: MirrorEntity | undefined
  /** What it may be asked for a second; absent where it has no limit. */
  readonly ceiling?: Ceiling
  /** How its workload fills it; absent where nobody but hosts of the fleet write. */
  readonly course?: UsageCourse
  /** What its workload asks of it; absent where nobody but hosts of the fleet ask. */
  readonly load?: LoadCourse
}

/** One end of a mirror. Hosts read and write the source; the target follows, and is written by nobody else. */
export interface MirrorEntity {
  readonly role: 'source' | 'target'
  /** Serial of the other array. */
  readonly partner: string
  readonly volumeId: string
  readonly state: 'copying' | 'synchronised' | 'broken'
}

/** What a volume may be asked for a second; null where there is no limit. */
export interface Ceiling {
  readonly requestsPerSecond: number | null
  readonly bytesPerSecond: number | null
}

/** How a workload asks with time. */
export interface LoadCourse {
  /** At its usual. */
  readonly requestsPerSecond: number
  readonly readShare: number
  readonly bytesEach: number
  /** Of its reads, what the cache answers. */
  readonly cacheHit: number
  readonly shape: 'office' | 'steady' | 'night'
  /** Hours of a weekday (0 = Monday, UTC) in which it asks so much more. */
  readonly peaks?: readonly {
    readonly weekday: number
    readonly fromHour: number
    readonly toHour: number
    readonly factor: number
  }[]
}

/** Reads, writes, KiB read, KiB written, seconds of reads, seconds of writes, reads answered by the cache: since the array began. */
export type LoadCounters = readonly [number, number, number, number, number, number, number]

export interface CountersEntity {
  readonly id: string
  readonly at: number
  readonly volumes: Readonly<Record<string, LoadCounters>>
}

/** How a workload fills its volume with time. */
export interface UsageCourse {
  readonly bytesPerDay: number
  /** More on weekdays than at the end of the week. */
  readonly isWeekly: boolean
  /** By which its days differ; absent where all are alike. */
  readonly seed?: string
  /** Bulk loads and mass deletes, at fleet milliseconds. */
  readonly steps?: readonly { readonly at: number; readonly bytes: number }[]
}

/** What pools and volumes held at an instant, which is its id (fleet milliseconds). */
export interface UsageEntity {
  readonly id: string
  readonly pools: Readonly<Record<string, string>>
  readonly volumes: Readonly<Record<string, string>>
}

export interface SnapshotEntity {
  readonly id: string
  readonly volumeId: string
  readonly name: string
  readonly naa: string
  readonly sizeBytes: string
  /** The instant that it holds: all that had been acknowledged by then. */
  readonly takenAt: number
  /** Its number among all that were taken of the volume, counted from 1 and never used twice. */
  readonly number: number
  /** Accounted bytes that the volume had then. */
  readonly workloadBytes: string
  /** What was acknowledged and still in memory has reached the drives. */
  readonly isConsistent: boolean
  /** The task that flushes it together with others of its instant. */
  readonly takenBy?: string
}

/**
 * Versions of a volume's accounted bytes. What is live is told by the number of the first snapshot that would hold it; what is dead, by
 * the first and last that hold it.
 */
export interface LineageEntity {
  readonly id: string
  readonly taken: number
  readonly changedAt: number
  readonly live: readonly { readonly first: number; readonly bytes: number }[]
  readonly dead: readonly { readonly first: number; readonly last: number; readonly bytes: number }[]
}

/** Volumes of which snapshots are taken at one instant. */
export interface ConsistencyEntity {
  readonly id: string
  readonly name: string
  readonly description: string
  readonly volumeIds: readonly string[]
}

export interface EndpointEntity {
  readonly id: string
  readonly initiator: string
  /** By what it must prove itself where it logs in, and by what the array then does; absent where nothing is asked. */
  readonly signIn?: { readonly secret: string; readonly ownSecret: string | null }
}

export interface GroupEntity {
  readonly id: string
  readonly name: string
  readonly description: string
  readonly endpointIds: readonly string[]
}

export interface ConnectionEntity {
  readonly id: string
  readonly description: string
  readonly groupId: string
  readonly volumeId: string
  readonly lun: number
}

export interface TaskEntity {
  readonly id: string
  readonly name: string
  readonly targetUri: string
  readonly method: 'POST' | 'PATCH'
  readonly jsonBody: string
  readonly resultUri: string
  readonly work:
    | 'initialise-pool'
    | 'zero-volume'
    | 'rebuild-drive'
    | 'form-cluster'
    | 'rebuild-pieces'
    | 'move-pieces'
    | 'erase-drive'
    | 'flush-snapshot'
    | 'flush-group'
    | 'copy-clone'
    | 'restore-volume'
    | 'move-volume'
    | 'mirror-volume'
    | 'start-file-service'
  readonly subjectId: string
  readonly state: 'Running' | 'Completed' | 'Exception' | 'Cancelled'
  readonly startedAt: number
  readonly endedAt: number | null
  /** Each drive's share of the work and its rate; done is the least of share and rate × worked time. */
  readonly lanes: readonly { readonly bytes: number; readonly bytesPerSecond: number }[]
  readonly workedSeconds: number
  readonly message: string
}

export interface SessionEntity {
  readonly id: string
  readonly tokenHash: string
  readonly userName: string
  readonly usedAt: number
}

/** What never changes about an array. */
export interface ArrayModel {
  readonly name: string
  readonly maker: string
  readonly model: string
  readonly serial: string
  readonly uuid: string
  readonly firmware: string
  readonly site: string
  readonly userName: string
  readonly password: string
  readonly enclosures: readonly {
    readonly id: string
    readonly name: string
    readonly model: string
    readonly heightMm: number
    /** The rack in which a node stands; absent for an array's own enclosures. */
    readonly rack?: string
  }[]
  readonly controllers: readonly string[]
  /** Whether it serves files besides volumes. */
  readonly servesFiles?: boolean
  readonly ports: readonly {
    readonly id: string
    readonly controller: string
    readonly speedGbps: number
    readonly address: string
    readonly target: string
  }[]
}
