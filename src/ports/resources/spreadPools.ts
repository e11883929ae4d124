import type { SpreadSchemeText } from '@/core/estate'
import type { Made } from '../Made'

export interface BankWanted {
  readonly number: number
  readonly nodeLocator: string
  readonly cacheLocator: string
  readonly capacityLocators: readonly string[]
}

export interface ClusterPoolWanted {
  readonly name: string
  readonly scheme: SpreadSchemeText
  readonly domain: 'node' | 'enclosure' | 'rack'
  readonly banks: readonly BankWanted[]
  readonly keepsRebuildReserve: boolean
  readonly snapshotReserveRatio: number
}

/** Long work that a cluster does on a pool by itself or when told to. */
export interface PoolWork {
  readonly locator: string
  readonly kind: 'rebuild' | 'move'
  readonly state: 'running' | 'done' | 'failed'
  readonly doneRatio: number
  /** By the system's own clock; null where it does not say. */
  readonly startedAt: string | null
  readonly endedAt: string | null
}

/** Pools that a cluster spreads over the banks of its nodes. */
export interface SpreadPools {
  readonly create: (wanted: ClusterPoolWanted, key: string) => Promise<Made>
  readonly banksOf: (poolLocator: string) => Promise<readonly BankWanted[]>
  readonly addDrives: (poolLocator: string, banks: readonly BankWanted[], rateRatio: number) => Promise<string | null>
  readonly removeDrives: (
    poolLocator: string,
    driveLocators: readonly string[],
    rateRatio: number,
  ) => Promise<string | null>
  /** The task that moves pieces of a pool now, if one does. */
  readonly moving: (poolLocator: string) => Promise<string | null>
}
