import type {
  ConsistencyGroup,
  Drive,
  FileService,
  FileSystem,
  Node,
  NodePort,
  Pool,
  Share,
  Snapshot,
  Switch,
  SwitchPort,
  Volume,
} from '@/core/estate'
import type { PoolWork } from './resources'

export interface SystemIdentity {
  readonly uuid: string
  readonly name: string
  readonly maker: string
  readonly model: string
  readonly serial: string
  readonly firmware: string | null
  readonly redfishVersion: string
}

type Found<T> = Omit<
  T,
  | 'id'
  | 'systemId'
  | 'revision'
  | 'poolId'
  | 'nodeId'
  | 'enclosureId'
  | 'state'
  | 'holdingUntil'
  | 'classId'
  | 'application'
  | 'isImage'
  | 'ownSchedule'
  | 'keptFor'
  | 'cloneOfId'
  | 'consistencyGroupId'
  | 'volumeId'
  | 'reason'
  | 'dueAt'
  | 'heldReason'
  | 'goesAt'
> & {
  readonly locator: string
}
type Plain<T> = Omit<T, 'id' | 'systemId' | 'revision'>

export interface SensorReading {
  readonly name: string
  readonly unit: string
  readonly reading: number
  readonly cautionAt: number | null
}

/** All that a system says it has, in the system's own locators; objects refer to each other by them. */
export interface Inventory {
  readonly identity: SystemIdentity
  readonly controllers: readonly {
    readonly locator: string
    readonly name: string
    readonly model: string | null
    readonly firmware: string | null
    readonly state: 'fine' | 'failed'
  }[]
  readonly enclosures: readonly {
    readonly locator: string
    readonly name: string
    readonly bayCount: number
    readonly baysPerRow: number
  }[]
  readonly drives: readonly (Found<Drive> & {
    readonly enclosureLocator: string
    readonly poolLocator: string | null
    readonly nodeLocator: string | null
    readonly state: Drive['state']
  })[]
  readonly ports: readonly {
    readonly locator: string
    readonly name: string
    readonly protocol: string
    readonly speedBitsPerSecond: number
    readonly isUp: boolean
    readonly address: string | null
    readonly targetName: string | null
    readonly controllerLocator: string | null
  }[]
  readonly pools: readonly (Found<Pool> & { readonly state: Pool['state'] })[]
  readonly volumes: readonly (Found<Volume> & {
    readonly poolLocator: string
    /** The snapshot with which a clone still shares. */
    readonly cloneOfLocator: string | null
    readonly consistencyGroupLocator: string | null
  })[]
  readonly snapshots: readonly (Found<Snapshot> & {
    readonly volumeLocator: string | null
    readonly state: Snapshot['state']
  })[]
  readonly consistencyGroups: readonly Plain<ConsistencyGroup>[]
  /** What is shown is a volume, or a snapshot. */
  readonly mappings: readonly {
    readonly locator: string
    readonly volumeLocator: string | null
    readonly snapshotLocator: string | null
    readonly groupName: string
    readonly lun: number
    readonly initiators: readonly string[]
  }[]
  readonly fileServices: readonly Plain<FileService>[]
  readonly fileSystems: readonly (Omit<Plain<FileSystem>, 'volumeId'> & { readonly volumeLocator: string })[]
  readonly shares: readonly (Omit<Plain<Share>, 'fileServiceId' | 'volumeId' | 'labels' | 'warnPercent'> & {
    readonly fileServiceLocator: string
    readonly volumeLocator: string
  })[]
  /** Groups of initiators, whoever made them. */
  readonly accessGroups: readonly { readonly name: string; readonly initiators: readonly string[] }[]
  /** Initiators that it knows and that are in no group of it. */
  readonly ungrouped: readonly string[]
  /** On which a file service can stand; none where it serves no files. */
  readonly fileUnits: readonly string[]
  /** Serials of the systems to which it can mirror. */
  readonly partners: readonly string[]
  readonly sensors: readonly SensorReading[]
  /** Nodes, their ports and the switches between them, where the system is a row of nodes. */
  readonly nodes: readonly (Omit<Plain<Node>, 'enclosureId'> & { readonly enclosureLocator: string | null })[]
  readonly nodePorts: readonly (Omit<Plain<NodePort>, 'nodeId' | 'switchPortId'> & {
    readonly nodeLocator: string
    readonly switchPortLocator: string | null
  })[]
  readonly switches: readonly Plain<Switch>[]
  readonly switchPorts: readonly (Omit<Plain<SwitchPort>, 'switchId' | 'peerPortId'> & {
    readonly switchLocator: string
    readonly peerPortLocator: string | null
  })[]
  readonly clusterName: string | null
  /** What the system states and could not be used; the rest could. */
  readonly skipped: readonly { readonly locator: string; readonly why: string }[]
  readonly works: readonly (PoolWork & { readonly poolLocator: string; readonly bytes: bigint })[]
}

/** Some of what a system has, read by itself. */
export type InventoryParts = Partial<Pick<Inventory, 'volumes' | 'snapshots'>>
