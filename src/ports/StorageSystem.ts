import type { Inventory, InventoryParts, SystemIdentity } from './Inventory'
import type { ResourceName, SystemResources } from './resources'

/** A storage system under management, whatever it speaks. */
export interface StorageSystem {
  /** The methods of one of its resources. @throws {NotOffered} where it has none, with why */
  readonly of: <N extends ResourceName>(name: N) => Promise<SystemResources[N]>
  readonly identity: () => Promise<SystemIdentity>
  readonly inventory: () => Promise<Inventory>
  readonly now: () => Promise<Date>
  /** Calls back whenever the system says that something has changed, with where if it says so, until stopped. */
  readonly watch: (changed: (origins: readonly string[]) => void, stop: AbortSignal) => Promise<void>
  /** What stands at some places now; undefined where it cannot be told without reading the whole system. */
  readonly parts: (locators: readonly string[]) => Promise<InventoryParts | undefined>
  /** Ends what was opened at the system by signing in. */
  readonly signOut: () => Promise<void>
}
