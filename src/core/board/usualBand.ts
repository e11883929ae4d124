import { quantileSorted } from 'd3-array'

export interface Band {
  /** P10 and P90 at each step of the grid; NaN where too little is known of that hour. */
  readonly low: Float64Array
  readonly high: Float64Array
}

const hour = 3_600_000
const week = 168 * hour
/** So many values of an hour of the week, or of the day, say what is usual then. */
const leastOfWeek = 3
const leastOfDay = 5
const [lowRank, highRank] = [0.1, 0.9]

/**
 * What is usual at each hour: P10 and P90 of that hour of the week in what is past; where fewer than three weeks are known, of that hour of
 * the day. By ranks, so that a few bad nights do not widen it.
 * @param past means by hour, oldest first; NaN where nothing was measured @param pastFrom where they begin, a whole hour (milliseconds since 1970, UTC)
 * @param at the instants for which it is asked
 */
export function usualBand(past: Float64Array, pastFrom: number, at: Float64Array): Band {
  const hourOf = (instant: number) => Math.floor((((instant % week) + week) % week) / hour)
  const byHour: number[][] = Array.from({ length: 168 }, () => [])
  past.forEach((value, index) => {
    if (!Number.isNaN(value)) byHour[hourOf(pastFrom + index * hour)]?.push(value)
  })
  const known = byHour.map((own, index) => {
    if (own.length >= leastOfWeek) return own.sort((a, b) => a - b)
    const ofDay = byHour.flatMap((each, other) => (other % 24 === index % 24 ? each : []))
    return ofDay.length >= leastOfDay ? ofDay.sort((a, b) => a - b) : undefined
  })
  const edge = (rank: number) =>
    at.map(instant => {
      const own = known[hourOf(instant)]
      return own === undefined ? Number.NaN : (quantileSorted(own, rank) ?? Number.NaN)
    })
  return { low: edge(lowRank), high: edge(highRank) }
}

/** A stretch of time in which a series was outside its band. */
export interface Left {
  /** The first and the last step. */
  readonly from: number
  readonly to: number
  readonly side: 'above' | 'below'
}

/** One step outside is noise: so many in a row are told. */
const leastSteps = 3

/** When a series left its band, the longest stretches first. */
export function leavesBand(values: Float64Array, { low, high }: Band): Left[] {
  const found: Left[] = []
  let begun: Left | undefined
  const sideOf = (step: number): Left['side'] | undefined => {
    const value = values[step] ?? Number.NaN
    return value > (high[step] ?? Number.NaN) ? 'above' : value < (low[step] ?? Number.NaN) ? 'below' : undefined
  }
  for (let step = 0; step <= values.length; step += 1) {
    const side = step < values.length ? sideOf(step) : undefined
    if (begun !== undefined && side === begun.side) {
      begun = { ...begun, to: step }
      continue
    }
    if (begun !== undefined && begun.to - begun.from + 1 >= leastSteps) found.push(begun)
    begun = side === undefined ? undefined : { from: step, to: step, side }
  }
  return found.sort((a, b) => b.to - b.from - (a.to - a.from))
}
