import type { Counters } from '@/core/metrics'

/** A value that a system has measured of something, at an instant of its own clock. */
export interface MeasuredSample {
  readonly locator: string
  readonly metric: 'written' | 'errors'
  /** Milliseconds since 1970; not a number where it could not be read. */
  readonly at: number
  /** Not a number where it could not be read. */
  readonly value: number
}

/** What had been asked of a volume at an instant; fields that could not be read are not numbers. */
export interface MeasuredCounters extends Counters {
  readonly locator: string
}

/**
 * What a system has measured and kept by itself, in any order, also what cannot be: whoever keeps it decides. What is older than an
 * instant is known, and may be left out; how far back that is is told by the estate's time, which need not be the wall's.
 */
export interface Metrics {
  readonly levelsSince: (since: Date, now: Date) => Promise<readonly MeasuredSample[]>
  readonly countersSince: (since: Date, now: Date) => Promise<readonly MeasuredCounters[]>
}
