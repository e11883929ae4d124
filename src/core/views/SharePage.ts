import type { FileService, Host, Share, System, Volume } from '../estate'
import type { ChangeLine } from './ChangeLine'

/** A host as rules see it: by its addresses, and by the name that leads back from the first of them. */
export interface KnownHost extends Pick<Host, 'id' | 'name' | 'addresses' | 'agentAddress'> {
  readonly clientName?: string | null
}

/** A share with what it stands on, the hosts that are known, and what was last done with it. */
export interface SharePage {
  readonly share: Share
  readonly missingSince: string | null
  readonly service: FileService
  readonly volume: Volume
  readonly system: System
  /** Hosts whose address on the network is known; the first of them where there are very many. */
  readonly hosts: readonly KnownHost[]
  readonly hostCount: number
  readonly changes: readonly ChangeLine[]
}
