/** Counts that a system has made since some beginning of its own; those of requests and kibibytes start again after 2^32. */
export interface Counters {
  /** Milliseconds since 1970. */
  readonly at: number
  readonly readRequests: number
  readonly writeRequests: number
  readonly readKibibytes: number
  readonly writeKibibytes: number
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
  const grown = (field: 'readRequests' | 'writeRequests' | 'readKibibytes' | 'writeKibibytes') => {
    const difference = after[field] - before[field]
    const whole = difference < 0 ? difference + wrapsAt : difference
    return whole >= 0 && whole < mostBetween ? whole : Number.NaN
  }
  const writes = grown('writeRequests')
  const requests = grown('readRequests') + writes
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
  }
}

/** What several did together: requests and bytes added up, times weighed by requests. */
export function ratesTogether(at: number, all: readonly Rates[]): Rates {
  const operations = all.reduce((sum, each) => sum + each.operations, 0)
  const busy = all.reduce((sum, each) => sum + each.operations * (each.latencySeconds ?? 0), 0)
  return {
    at,
    operations,
    writes: all.reduce((sum, each) => sum + each.writes, 0),
    bytesPerSecond: all.reduce((sum, each) => sum + each.bytesPerSecond, 0),
    latencySeconds: operations === 0 ? undefined : busy / operations,
  }
}
