import type { Inventory, InventoryParts, SystemIdentity } from './Inventory'
import type { MeasuredCounters, ResourceName, SystemResources } from './resources'

/** Who listens to what a system tells by itself. */
export interface Ears {
  /** Something has changed: where, if the system says so. */
  readonly changed: (origins: readonly string[]) => void
  /** What it has counted of its volumes. */
  readonly counted: (counters: readonly MeasuredCounters[]) => void
}

/** A storage system under management, whatever it speaks. */
export interface StorageSystem {
  /** The methods of one of its resources. @throws {NotOffered} where it has none, with why */
  readonly of: <N extends ResourceName>(name: N) => Promise<SystemResources[N]>
  readonly identity: () => Promise<SystemIdentity>
  readonly inventory: () => Promise<Inventory>
  readonly now: () => Promise<Date>
  /** Hands on what the system tells by itself, until stopped or until it tells no more. */
  readonly watch: (ears: Ears, stop: AbortSignal) => Promise<void>
  /** What stands at some places now; undefined where it cannot be told without reading the whole system. */
  readonly parts: (locators: readonly string[]) => Promise<InventoryParts | undefined>
  /** Until when the certificate is valid that it showed last; null where it has none, or was not asked yet. */
  readonly certificateEndsAt: () => Date | null
  /** How often it has been asked to change something, whatever it answered: where that is as it was, nothing is otherwise by our doing. */
  readonly changesSent: () => number
  /** Ends what was opened at the system by signing in. */
  readonly signOut: () => Promise<void>
}
