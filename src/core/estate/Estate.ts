import type {
  Controller,
  Drive,
  Enclosure,
  Host,
  HostGroup,
  Mapping,
  Pool,
  Port,
  Probe,
  Site,
  System,
  Volume,
} from './schemas'
import type { Directory, Principal } from './directorySchemas'
import type { FileService, FileSystem, Share } from './fileSchemas'
import type { Route, Rule } from './tellingSchemas'
import type { ConsistencyGroup, ServiceClass, Snapshot } from './promiseSchemas'
import type {
  Catalogue,
  NameAnswer,
  Node,
  NodePort,
  PathProbe,
  SignedException,
  Switch,
  SwitchPort,
} from './nodeSchemas'

/** The part of the estate that a plan looks at. Records fill it by the kind's `needs`. */
export interface Estate {
  readonly sites: readonly Site[]
  readonly systems: readonly System[]
  readonly controllers: readonly Controller[]
  readonly enclosures: readonly Enclosure[]
  readonly drives: readonly Drive[]
  readonly ports: readonly Port[]
  readonly pools: readonly Pool[]
  readonly serviceClasses: readonly ServiceClass[]
  readonly consistencyGroups: readonly ConsistencyGroup[]
  readonly volumes: readonly Volume[]
  readonly snapshots: readonly Snapshot[]
  readonly hostGroups: readonly HostGroup[]
  readonly hosts: readonly Host[]
  readonly mappings: readonly Mapping[]
  readonly fileServices: readonly FileService[]
  readonly fileSystems: readonly FileSystem[]
  readonly shares: readonly Share[]
  readonly directories: readonly Directory[]
  /** People and groups that the plan is about, and the groups above them. */
  readonly principals: readonly Principal[]
  /** Where somebody is told, and of what. */
  readonly routes: readonly Route[]
  readonly rules: readonly Rule[]
  readonly probes: readonly Probe[]
  readonly nodes: readonly Node[]
  readonly nodePorts: readonly NodePort[]
  readonly switches: readonly Switch[]
  readonly switchPorts: readonly SwitchPort[]
  /** The latest of each system. */
  readonly pathProbes: readonly PathProbe[]
  readonly nameAnswers: readonly NameAnswer[]
  readonly exceptions: readonly SignedException[]
  /** The latest of each maker. */
  readonly catalogues: readonly Catalogue[]
  /** Of pools that the plan asks for: what was asked of them in the hour of the last week in which they answered slowest. */
  readonly poolDemands: readonly PoolDemand[]
  /** Of all pools, where the plan chooses among them: how they answer, and what comes to them in a day. */
  readonly poolTrends: readonly PoolTrend[]
  /** Actual ÷ base seconds of earlier runs of the kind being planned, latest last. */
  readonly pastMisses: readonly number[]
  /** Objects that a running change holds, by id, with that change's title. */
  readonly claims: ReadonlyMap<string, string>
  readonly settings: EstateSettings
}

/** How a pool is likely to go on. */
export interface PoolTrend {
  readonly poolId: string
  /** What nineteen of twenty minutes of the last day stayed below; null where nothing was measured. */
  readonly p95Seconds: number | null
  /** Null where too little is known of its past. */
  readonly growthBytesPerDay: number | null
}

/** What each volume of a pool asked of its drives in one hour, as it was measured. */
export interface PoolDemand {
  readonly poolId: string
  /** When the hour began. */
  readonly at: string
  readonly demands: readonly {
    readonly id: string
    /** Of its hosts, and how many each of them makes at one of the pool's drives. */
    readonly requestsPerSecond: number
    readonly stationRequestsEach: number
    readonly bytesPerSecond: number
  }[]
}

/** What the administrators have set for the whole estate. */
export interface EstateSettings {
  readonly volumeNaming: string
  readonly holdingDays: number
  /** Where names are looked up, as `host:port`; empty where none is known. */
  readonly nameServer: string
  /** Networks as CIDR whose addresses may be registered although they are barred by themselves; as text, one after another. */
  readonly addresses: string
}

export const emptyEstate: Estate = {
  sites: [],
  systems: [],
  controllers: [],
  enclosures: [],
  drives: [],
  ports: [],
  pools: [],
  serviceClasses: [],
  consistencyGroups: [],
  volumes: [],
  snapshots: [],
  hostGroups: [],
  hosts: [],
  mappings: [],
  fileServices: [],
  fileSystems: [],
  shares: [],
  directories: [],
  principals: [],
  routes: [],
  rules: [],
  probes: [],
  nodes: [],
  nodePorts: [],
  switches: [],
  switchPorts: [],
  pathProbes: [],
  nameAnswers: [],
  exceptions: [],
  catalogues: [],
  poolDemands: [],
  poolTrends: [],
  pastMisses: [],
  claims: new Map(),
  settings: { volumeNaming: '{group}-{purpose}-{nn}', holdingDays: 7, nameServer: '', addresses: '' },
}

/** The object with an id, or undefined. Linear: estates given to plans are slices. */
export const byId = <T extends { readonly id: string }>(
  objects: readonly T[],
  id: string | null | undefined,
): T | undefined =>
  id === null || id === undefined || id === '' ? undefined : objects.find(object => object.id === id)
