import type { FileService, Share } from '../estate'
import type { KnownHost } from './SharePage'

/** Shares and hosts, for who can do what from where. */
export interface GrantPage {
  readonly shares: readonly Share[]
  readonly shareCount: number
  readonly services: readonly FileService[]
  readonly hosts: readonly KnownHost[]
  readonly hostCount: number
}
