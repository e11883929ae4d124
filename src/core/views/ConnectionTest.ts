import type { FileService, Host, Share } from '../estate'
import type { ConnectionHop, WayOut } from '../network'

/** What a host found on its way to a share as somebody, hop by hop. */
export interface ConnectionTest {
  readonly id: string
  readonly hostId: string
  readonly shareId: string
  readonly protocol: 'NFS' | 'SMB'
  /** As whom it was tried, in words. */
  readonly caller: string
  readonly at: string
  readonly madeBy: string
  readonly hops: readonly ConnectionHop[]
  /** What would lead it there; null where it gets there, or where rights bar it. */
  readonly wayOut: WayOut | null
}

/** Hosts that can try a share, the shares, and what was found. */
export interface ConnectionPage {
  readonly hosts: readonly Pick<Host, 'id' | 'name' | 'addresses'>[]
  readonly shares: readonly Pick<Share, 'id' | 'name' | 'protocols' | 'fileServiceId'>[]
  readonly services: readonly FileService[]
  /** Of the host and the share that are chosen, the latest first. */
  readonly tests: readonly ConnectionTest[]
  /** Of all hosts and shares. */
  readonly latest: readonly ConnectionTest[]
}
