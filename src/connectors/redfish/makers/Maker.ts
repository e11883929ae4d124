import type { Drive } from '@/core/estate'
import type { BankWanted, ClusterPoolWanted } from '@/ports'

/** How a pool spreads its pieces over banks. */
export interface SpreadStated {
  readonly scheme: ClusterPoolWanted['scheme']
  readonly domain: ClusterPoolWanted['domain']
  readonly rawBytes: bigint
  readonly rebuildReserveBytes: bigint
  readonly strandedBytes: bigint
  readonly banks: readonly BankWanted[]
}

/**
 * What one maker states and takes beyond the standard, in Wendrel's terms. Each reading gets the maker's own part of a resource
 * (`Oem.<maker>`), and takes a part that it does not understand for one that says nothing.
 */
export interface Maker {
  readonly drive: (own: unknown) => Pick<Drive, 'isBoot' | 'driveWritesPerDay' | 'leftOver'>
  readonly computer: (own: unknown) => { readonly mostCapacityDrives: number; readonly agentAddress: string | null }
  readonly interface: (own: unknown) => {
    readonly carriesStorage: boolean
    readonly traffic: readonly string[]
    readonly isReserved: boolean
  }
  readonly vlans: (own: unknown) => readonly number[]
  readonly lostBytes: (own: unknown) => bigint
  /** Undefined for a pool that is spread over nothing. */
  readonly spread: (own: unknown) => SpreadStated | undefined
  /** Undefined for a task that moves no pieces. */
  readonly work: (own: unknown) => { readonly kind: 'rebuild' | 'move'; readonly bytes: bigint } | undefined
  /** What this maker's own parts of requests are; undefined for a maker that has no nodes. */
  readonly requests: OwnRequests | undefined
}

/** A maker's own parts of the requests that a row of nodes takes. */
export interface OwnRequests {
  readonly carriesStorage: (isOn: boolean) => object
  readonly vlans: (vlans: readonly number[]) => object
  readonly spreadPool: (wanted: ClusterPoolWanted) => object
  readonly addDrives: (banks: readonly BankWanted[], rateRatio: number) => object
  readonly removeDrives: (rateRatio: number) => object
}
