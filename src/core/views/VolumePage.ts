import type { ChangeLine } from './ChangeLine'
import type { Mapping, Pool, ServiceClass, Snapshot, System, Volume } from '../estate'
import type { PromiseKept } from '../classes'
import type { WaysSeen } from './HostWaysSeen'
import type { Judged } from '../snapshots'

/** One volume with its neighbours and the latest changes that touched it. */
export interface VolumePage {
  readonly volume: Volume
  /** Since when its system does not state it any more; null while it does. */
  readonly missingSince: string | null
  readonly pool: Pool
  readonly system: System
  /** Where its mirror stands; null for none, or one of a system that is not registered. */
  readonly partner: System | null
  readonly mappings: readonly Mapping[]
  /** By which ways hosts see it, as their agents say. */
  readonly ways: readonly WaysSeen[]
  readonly targets: readonly { readonly name: string; readonly address: string }[]
  readonly changes: readonly ChangeLine[]
  readonly serviceClass: ServiceClass | null
  readonly promises: readonly PromiseKept[]
  readonly snapshotCount: number
  /** The snapshot with which a clone still shares. */
  readonly cloneOf: Snapshot | null
}

/** What a volume was, and what has been made of that. */
export interface VolumeCopies {
  readonly snapshots: readonly Judged[]
  /** Clones that still share with one of them. */
  readonly clones: readonly Volume[]
}
