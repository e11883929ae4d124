import type { RaidSchemeText } from '@/core/estate'
import type { Made } from '../Made'

export interface PoolWanted {
  readonly name: string
  readonly scheme: RaidSchemeText
  readonly groups: readonly (readonly string[])[]
  readonly spares: readonly string[]
  readonly snapshotReserveRatio: number
}

export interface PoolSeen {
  readonly locator: string
  readonly name: string
  readonly isReady: boolean
  readonly usableBytes: bigint
  readonly driveLocators: readonly string[]
}

/** Pools, whatever lies under them; those made here are of RAID groups. */
export interface Pools {
  readonly byKey: (key: string) => Promise<Made | undefined>
  readonly create: (wanted: PoolWanted, key: string) => Promise<Made>
  readonly at: (locator: string) => Promise<PoolSeen | undefined>
  /** @throws {OtherObject} where another pool stands there than the one that is expected */
  readonly remove: (locator: string, expectedName: string) => Promise<void>
}
