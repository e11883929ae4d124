import type { PoolLoudness } from '../performance'

/** A volume by how fast it answers. */
export interface SlowLine {
  readonly id: string
  readonly name: string
  readonly poolId: string
  readonly poolName: string
  readonly className: string | null
  /** Promised by its class (seconds); null where nothing is. */
  readonly promisedSeconds: number | null
  /** What nineteen of twenty of the last day's minutes stayed below (seconds). */
  readonly p95Seconds: number
  readonly requestsPerSecond: number
  readonly bytesPerSecond: number
}

export interface SlowList {
  readonly lines: readonly SlowLine[]
  readonly total: number
  /** That answer slower than is promised. */
  readonly missing: number
}

/** A volume by how fast it answers beside what is promised (seconds). */
export type PromisedLine = Pick<SlowLine, 'id' | 'name' | 'p95Seconds'> & { readonly promisedSeconds: number }

/** Those that have used up most of what is promised of them first. */
export interface AgainstPromise {
  readonly lines: readonly PromisedLine[]
  /** That answer slower than is promised, shown here or not. */
  readonly missing: number
}

/** A mean of some span of time. */
export interface SpanMean {
  /** Where it begins (milliseconds since 1970). */
  readonly at: number
  /** Null where nothing was measured. */
  readonly latencySeconds: number | null
  readonly requestsPerSecond: number | null
  /** Of the requests, those that write. */
  readonly writesPerSecond: number | null
  readonly bytesPerSecond: number | null
  /** Part of the reads that a cache answered. */
  readonly hitRatio: number | null
}

/** A volume's course, the pool's that it stands in, and who makes that one slow. */
export interface VolumeLoad {
  readonly line: SlowLine
  readonly course: readonly SpanMean[]
  readonly poolCourse: readonly SpanMean[]
  /** Mean latency by weekday (0 = Monday) and hour (UTC), of the last weeks; null where nothing was measured. */
  readonly strata: readonly (readonly (number | null)[])[]
  /** The hour of which loudness is told: its beginning (milliseconds since 1970). */
  readonly lookedAt: number
  readonly loud: PoolLoudness & { readonly names: Readonly<Record<string, string>> }
}
