import type { ChangeLine } from './ChangeLine'
import type { Mapping, Pool, System, Volume } from '../estate'

/** One volume with its neighbours and the latest changes that touched it. */
export interface VolumePage {
  readonly volume: Volume
  /** Since when its system does not state it any more; null while it does. */
  readonly missingSince: string | null
  readonly pool: Pool
  readonly system: System
  readonly mappings: readonly Mapping[]
  readonly targets: readonly { readonly name: string; readonly address: string }[]
  readonly changes: readonly ChangeLine[]
}
