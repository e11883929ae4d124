/** Where requests are served: several servers with a common queue and service times as by chance, or one of any variation. */
export type Station =
  | { readonly model: 'mmc'; readonly serviceSeconds: number; readonly servers: number }
  | {
      readonly model: 'mg1'
      readonly serviceSeconds: number
      /** Variance of the service time ÷ square of its mean: 0 for a constant one, 1 for an exponential one. */
      readonly serviceScv: number
    }

/** How a station does under a load; of one that takes more than it can serve nothing but that can be said. */
export type StationLoad =
  | { readonly stable: false; readonly utilization: number }
  | {
      readonly stable: true
      readonly utilization: number
      /** That a request has to wait; only of several servers. */
      readonly waitProbability?: number
      readonly meanWaitSeconds: number
      readonly meanResponseSeconds: number
      /** Waiting and served (Little's law). */
      readonly meanInSystem: number
    }

/** Response of a station. Sources: Erlang C for M/M/c, Pollaczek–Khinchine for M/G/1. */
export function stationLoad(station: Station, arrivalsPerSecond: number): StationLoad {
  const { serviceSeconds } = station
  const servers = station.model === 'mmc' ? station.servers : 1
  const offered = arrivalsPerSecond * serviceSeconds
  const utilization = offered / servers
  if (utilization >= 1) return { stable: false, utilization }
  const waitProbability = station.model === 'mmc' ? erlangC(offered, servers) : undefined
  const meanWaitSeconds =
    station.model === 'mmc'
      ? ((waitProbability ?? 0) * serviceSeconds) / (servers - offered)
      : (offered * serviceSeconds * (1 + station.serviceScv)) / (2 * (1 - offered))
  const meanResponseSeconds = meanWaitSeconds + serviceSeconds
  return {
    stable: true,
    utilization,
    ...(waitProbability === undefined ? {} : { waitProbability }),
    meanWaitSeconds,
    meanResponseSeconds,
    meanInSystem: arrivalsPerSecond * meanResponseSeconds,
  }
}

/** That an arriving request finds all servers busy. By the recursion of Erlang B, which stays within what a number can hold. */
function erlangC(offered: number, servers: number): number {
  let blocked = 1
  for (let busy = 1; busy <= servers; busy += 1) blocked = (offered * blocked) / (busy + offered * blocked)
  const utilization = offered / servers
  return blocked / (1 - utilization * (1 - blocked))
}

const searchSteps = 60

/** The load at which the mean response is twice the service time: beyond it a little more costs much. */
export function kneeOf(station: Station): { readonly utilization: number; readonly arrivalsPerSecond: number } {
  const servers = station.model === 'mmc' ? station.servers : 1
  const utilization = station.model === 'mg1' ? 2 / (3 + station.serviceScv) : kneeOfSeveral(servers)
  return { utilization, arrivalsPerSecond: (utilization * servers) / station.serviceSeconds }
}

function kneeOfSeveral(servers: number): number {
  let [low, high] = [0, 1]
  for (let step = 0; step < searchSteps; step += 1) {
    const middle = (low + high) / 2
    const isBeyond = erlangC(middle * servers, servers) > servers * (1 - middle)
    if (isBeyond) high = middle
    else low = middle
  }
  return (low + high) / 2
}
