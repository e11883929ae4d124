import type { ConsistencyGroups } from './consistencyGroups'
import type { Drives } from './drives'
import type { FileServices } from './fileServices'
import type { Mappings } from './mappings'
import type { Metrics } from './metrics'
import type { Mirrors } from './mirrors'
import type { Interfaces, SwitchPorts } from './network'
import type { Clusters, Nodes } from './nodes'
import type { Pools } from './pools'
import type { Shares } from './shares'
import type { Snapshots } from './snapshots'
import type { SpreadPools } from './spreadPools'
import type { Tasks } from './tasks'
import type { Volumes } from './volumes'

/**
 * What a system may have, each with the few methods that changes need of it. A system need not have them all: an array has no nodes.
 * `key` marks what a step makes, so that a step that runs again finds it; all calls throw typed errors that name the system, and none
 * sends a change again by itself.
 */
export interface SystemResources {
  readonly volumes: Volumes
  readonly pools: Pools
  readonly spreadPools: SpreadPools
  readonly snapshots: Snapshots
  readonly consistencyGroups: ConsistencyGroups
  readonly mappings: Mappings
  readonly mirrors: Mirrors
  readonly fileServices: FileServices
  readonly shares: Shares
  readonly drives: Drives
  readonly interfaces: Interfaces
  readonly switchPorts: SwitchPorts
  readonly nodes: Nodes
  readonly clusters: Clusters
  readonly tasks: Tasks
  readonly metrics: Metrics
}
export type ResourceName = keyof SystemResources

export type * from './consistencyGroups'
export type * from './drives'
export type * from './fileServices'
export type * from './mappings'
export type * from './metrics'
export type * from './mirrors'
export type * from './network'
export type * from './nodes'
export type * from './pools'
export type * from './shares'
export type * from './snapshots'
export type * from './spreadPools'
export type * from './tasks'
export type * from './volumes'
