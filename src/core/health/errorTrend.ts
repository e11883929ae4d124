import type { Sample } from '../metrics'

const week = 7 * 86_400_000
/** Fewer in a week are what every drive has, and say nothing of what comes. */
const leastInWeek = 20
/** Of so many times the week before a drive is not well, whatever it states itself. */
const leastGrowth = 1.5

/** How the errors of a drive come. */
export interface ErrorTrend {
  readonly lastWeek: number
  readonly weekBefore: number
  /** Half as many again as in the week before, and more than every drive has. */
  readonly isRising: boolean
  /** In how many days they have come to be twice as many; null where that cannot be told. */
  readonly doublingDays: number | null
}

/** What a counter stood at, at an instant: the last that was read by then; the first where none was. */
function levelAt(counted: readonly Sample[], at: number): number {
  let level = counted[0]?.value ?? 0
  for (const each of counted) {
    if (each.at > at) break
    level = each.value
  }
  return level
}

/**
 * Errors of the last week beside those of the week before, from a counter. One that began anew, as it does when a drive is exchanged, has
 * counted nothing between.
 * @param counted levels of the counter, in the order of time @param now milliseconds since 1970
 */
export function errorTrend(counted: readonly Sample[], now: number): ErrorTrend {
  const [last, before, first] = [now, now - week, now - 2 * week].map(at => levelAt(counted, at)) as [
    number,
    number,
    number,
  ]
  const [lastWeek, weekBefore] = [Math.max(0, last - before), Math.max(0, before - first)]
  const isRising = lastWeek >= leastInWeek && lastWeek >= leastGrowth * weekBefore
  const growth = lastWeek / weekBefore
  const doublingDays = weekBefore > 0 && growth > 1 ? (7 * Math.LN2) / Math.log(growth) : null
  return { lastWeek, weekBefore, isRising, doublingDays }
}
