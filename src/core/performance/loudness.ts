import { kneeOf, stationLoad, type Station } from './station'

/** What one volume asks of the drives of its pool. */
export interface Demand {
  readonly id: string
  /** Requests of its hosts a second, and how many each of them makes at the station. */
  readonly requestsPerSecond: number
  readonly stationRequestsEach: number
}

export interface Loudness {
  readonly id: string
  /** Of the time in which the pool's drives are busy (0 to 1). */
  readonly share: number
  /** How busy the drives would be without it (0 to 1, more where they would still be asked for more than they serve). */
  readonly utilizationWithout: number
  /** What every other volume's requests would take less of at the drives without it (seconds); null where they are asked for more than they serve. */
  readonly othersGainSeconds: number | null
}

export interface PoolLoudness {
  readonly utilization: number
  /** Null where more is asked than can be served. */
  readonly responseSeconds: number | null
  /** How much more could be asked before the response is twice that of an idle pool, as a part of what is asked now; null where nothing is. */
  readonly headroomRatio: number | null
  /** The loudest first. */
  readonly volumes: readonly Loudness[]
}

/** Who makes a pool slow, and what the others would gain without each. @param station where all of them are served, such as one of the pool's drives */
export function poolLoudness(station: Station, demands: readonly Demand[]): PoolLoudness {
  const asked = demands.map(each => each.requestsPerSecond * each.stationRequestsEach)
  const all = asked.reduce((sum, each) => sum + each, 0)
  const now = stationLoad(station, all)
  const volumes = demands.map(({ id }, index) => {
    const own = asked[index] ?? 0
    const without = stationLoad(station, Math.max(0, all - own))
    return {
      id,
      share: all === 0 ? 0 : own / all,
      utilizationWithout: without.utilization,
      othersGainSeconds: now.stable && without.stable ? now.meanResponseSeconds - without.meanResponseSeconds : null,
    }
  })
  return {
    utilization: now.utilization,
    responseSeconds: now.stable ? now.meanResponseSeconds : null,
    headroomRatio: all === 0 ? null : kneeOf(station).arrivalsPerSecond / all - 1,
    volumes: volumes.sort((a, b) => b.share - a.share),
  }
}
