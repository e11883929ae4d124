import { kneeOf, stationLoad, type Station } from './station'
import type { Demand } from './loudness'

/** What a volume may be asked for; each null where there is no limit. */
export interface RateLimits {
  readonly requestsPerSecond: number | null
  readonly bytesPerSecond: number | null
}

/** A demand with what its requests move. */
export interface SizedDemand extends Demand {
  readonly bytesPerSecond: number
}

/** The requests a second that limits let through; a limit in bytes counts by the size that the requests have. */
export function letThrough(demand: SizedDemand, limits: RateLimits): number {
  const { requestsPerSecond: asked, bytesPerSecond: moved } = demand
  const byRequests = limits.requestsPerSecond ?? Infinity
  const byBytes = limits.bytesPerSecond === null || moved <= 0 ? Infinity : (limits.bytesPerSecond / moved) * asked
  return Math.min(asked, byRequests, byBytes)
}

export interface Limited {
  /** Of what is limited: what its hosts asked for, and what comes through. */
  readonly askedPerSecond: number
  readonly passedPerSecond: number
  /** How busy the drives are, as it was and as it would be (0 to 1, more where they are asked for more than they serve). */
  readonly utilizationBefore: number
  readonly utilizationAfter: number
  /** What a request to the drives takes (seconds); null where more is asked than can be served. */
  readonly responseBefore: number | null
  readonly responseAfter: number | null
  /** Beyond it answers take twice as long as of idle drives (0 to 1). */
  readonly knee: number
}

/**
 * What a limit on each of some volumes of a pool would have done in an hour that was measured: to them, and to all others of the pool.
 */
export function underLimits(
  station: Station,
  demands: readonly SizedDemand[],
  volumeIds: readonly string[],
  limits: RateLimits,
): Limited {
  const at = (demand: SizedDemand, requests: number) => requests * demand.stationRequestsEach
  const own = demands.filter(({ id }) => volumeIds.includes(id))
  const all = demands.reduce((sum, each) => sum + at(each, each.requestsPerSecond), 0)
  const less = own.reduce((sum, each) => sum + at(each, each.requestsPerSecond - letThrough(each, limits)), 0)
  const [before, after] = [stationLoad(station, all), stationLoad(station, Math.max(0, all - less))]
  return {
    askedPerSecond: own.reduce((sum, each) => sum + each.requestsPerSecond, 0),
    passedPerSecond: own.reduce((sum, each) => sum + letThrough(each, limits), 0),
    utilizationBefore: before.utilization,
    utilizationAfter: after.utilization,
    responseBefore: before.stable ? before.meanResponseSeconds : null,
    responseAfter: after.stable ? after.meanResponseSeconds : null,
    knee: kneeOf(station).utilization,
  }
}
