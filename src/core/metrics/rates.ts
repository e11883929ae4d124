/** Counts that a system has made since some beginning of its own; those of requests and kibibytes start again after 2^32. */
export interface Counters {
  /** Milliseconds since 1970. */
  readonly at: number
  readonly readRequests: number
  readonly writeRequests: number
  readonly readKibibytes: number
  readonly writeKibibytes: number
  /** Of the reads, those that a cache answered; not a number where the system does not say. */
  readonly readHits: number
  /** Time that requests took, added up (seconds). */
  readonly readSeconds: number
  readonly writeSeconds: number
}

/** What went on between two readings of counters. */
export interface Rates {
  readonly at: number
  /** Requests a second. */
  readonly operations: number
  /** Of them, those that write. */
  readonly writes: number
  readonly bytesPerSecond: number
  /** Mean time of a request (seconds); undefined where there was none. */
  readonly latencySeconds: number | undefined
  /** Part of the reads that a cache answered; undefined where there was none, or the system does not say. */
  readonly hitRatio: number | undefined
}

const wrapsAt = 2 ** 32
/** No system does more between two readings than half of what a counter holds: more is a counter that began anew. */
const mostBetween = wrapsAt / 2

/**
 * @returns undefined where nothing can be said: a counter has begun anew, or no time has gone by
 */
export function ratesBetween(before: Counters, after: Counters): Rates | undefined {
  const seconds = (after.at - before.at) / 1000
  if (!(seconds > 0)) return undefined
  const grown = (field: Counted) => grownBy(before[field], after[field])
  const [reads, writes] = [grown('readRequests'), grown('writeRequests')]
  const requests = reads + writes
  const kibibytes = grown('readKibibytes') + grown('writeKibibytes')
  const took = after.readSeconds - before.readSeconds + (after.writeSeconds - before.writeSeconds)
  // A duration never wraps: one that is less than before began anew, and the counts with it.
  const isAnew = after.readSeconds < before.readSeconds || after.writeSeconds < before.writeSeconds
  if (isAnew || !Number.isFinite(requests + kibibytes + took)) return undefined
  return {
    at: after.at,
    operations: requests / seconds,
    writes: writes / seconds,
    bytesPerSecond: (kibibytes * 1024) / seconds,
    latencySeconds: requests === 0 ? undefined : took / requests,
    hitRatio: hitRatio(grown('readHits'), reads),
  }
}

type Counted = 'readRequests' | 'writeRequests' | 'readKibibytes' | 'writeKibibytes' | 'readHits'

/** @returns not a number where the counter has begun anew */
function grownBy(before: number, after: number): number {
  const difference = after - before
  const whole = difference < 0 ? difference + wrapsAt : difference
  return whole >= 0 && whole < mostBetween ? whole : Number.NaN
}

/** Hits are counted a moment apart from reads: a few more than all are all, many more are nonsense. */
function hitRatio(hits: number, reads: number): number | undefined {
  if (!(reads > 0) || !Number.isFinite(hits) || hits > reads * 1.05 + 1) return undefined
  return Math.min(1, hits / reads)
}

/** What several did together: requests and bytes added up, times weighed by requests, hits by the reads of those that tell them. */
export function ratesTogether(at: number, all: readonly Rates[]): Rates {
  const operations = all.reduce((sum, each) => sum + each.operations, 0)
  const busy = all.reduce((sum, each) => sum + each.operations * (each.latencySeconds ?? 0), 0)
  return {
    at,
    operations,
    writes: all.reduce((sum, each) => sum + each.writes, 0),
    bytesPerSecond: all.reduce((sum, each) => sum + each.bytesPerSecond, 0),
    latencySeconds: operations === 0 ? undefined : busy / operations,
    hitRatio: hitsTogether(all),
  }
}

function hitsTogether(all: readonly Rates[]): number | undefined {
  const told = all.filter(each => each.hitRatio !== undefined)
  const reads = (each: Rates) => each.operations - each.writes
  const most = told.reduce((sum, each) => sum + reads(each), 0)
  return most > 0 ? told.reduce((sum, each) => sum + reads(each) * (each.hitRatio ?? 0), 0) / most : undefined
}
