import type { FileService, Host, Share } from '../estate'

/** Shares and hosts, for who can do what from where. */
export interface GrantPage {
  readonly shares: readonly Share[]
  readonly shareCount: number
  readonly services: readonly FileService[]
  readonly hosts: readonly Pick<Host, 'id' | 'name' | 'addresses' | 'agentAddress'>[]
  readonly hostCount: number
}
