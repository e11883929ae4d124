import type { Tried, WayFound } from '@/core/network'
import type { FileCaller, SignedInCaller } from './Caller'

/** What came of trying a share as somebody: why each was refused; null where it was not. */
export type ShareTried = Omit<Tried, 'milliseconds'>

/** Whom a host asks for names. */
export interface HostResolver {
  /** `address:port`. */
  readonly server: string
  /** Names below a domain are asked of another server. */
  readonly forwards: readonly { readonly domain: string; readonly server: string }[]
}

/** How a host finds its way in the network. Looking and trying leave nothing behind. */
export interface HostNetwork {
  readonly way: (server: string) => Promise<WayFound>
  /** @param share its path, or its name behind two slashes over SMB */
  readonly tryShare: (server: string, share: string, as: FileCaller | SignedInCaller) => Promise<ShareTried>
  readonly resolver: () => Promise<HostResolver>
  /** Has names below a domain asked of another server; an empty server: of the usual one again. Safe to repeat. */
  readonly setForward: (domain: string, server: string) => Promise<void>
}
