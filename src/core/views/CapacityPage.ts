import type { NoOutlook, Outlook, SpaceKind } from '../capacity'
import type { Pool } from '../estate'
import type { DailyLevels } from '../metrics'

/** A pool in the order in which pools fill. */
export interface PoolFilling {
  readonly pool: Pool
  readonly systemName: string
  /** Undefined where nothing has been measured yet. */
  readonly outlook: Outlook | NoOutlook | undefined
}

/** A volume by how it grows. */
export interface Grower {
  readonly id: string
  readonly name: string
  readonly writtenBytes: number
  readonly bytesPerDay: number
}

/** Something that would give a pool a later day, and the draft of it. */
export interface WayOut {
  readonly title: string
  readonly why: string
  readonly bytes: number
  readonly bytesPerDay: number
  readonly href: string
}

/** A pool with its past and what could be done about it. */
export interface PoolGrowth extends PoolFilling {
  readonly levels: DailyLevels | undefined
  /** The fastest first; all others together are what is left of the pool's growth. */
  readonly growers: readonly Grower[]
  readonly ways: readonly WayOut[]
  /** Every byte of its drives under one name. */
  readonly composition: readonly (readonly [SpaceKind, bigint])[]
}

/** What belongs together in some way, with what it takes. */
export interface Share {
  /** Undefined for what belongs to nobody. */
  readonly id: string | undefined
  readonly name: string
  readonly volumes: number
  readonly sizeBytes: bigint
  readonly writtenBytes: bigint
}

/** By what the capacity of the estate can be told apart. */
export const shareBys = ['application', 'class', 'system', 'site'] as const
export type ShareBy = (typeof shareBys)[number]
