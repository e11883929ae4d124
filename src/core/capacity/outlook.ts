import { daysToFull, forecastGrowth, type FanPoint } from '../forecast'
import type { DailyLevels } from '../metrics'

/** A pool is to be acted on when it is filled so far: writes need room to be placed, and drives time to be bought. */
export const limitRatio = 0.9
/** Nothing is said of what lies farther ahead: courses do not hold so long. */
export const horizonDays = 3 * 365
/** So far a fan is drawn and kept (days). */
export const drawnDays = 60

/** Whole days from today on which the lines of a fan reach something; null: not within the horizon. P90 is the early one. */
export interface Reaches {
  readonly p10: number | null
  readonly p50: number | null
  readonly p90: number | null
}

/** What is likely to become of a pool's written bytes. */
export interface Outlook {
  /** The day from which it looks ahead: midnight, UTC (milliseconds since 1970). */
  readonly today: number
  readonly usedBytes: number
  readonly limitBytes: number
  readonly fullBytes: number
  readonly slopeBytesPerDay: number
  /** The days that the trend rests on, and the day before which a step has taken everything apart (milliseconds), if there was one. */
  readonly windowDays: number
  readonly stepAt: number | null
  readonly reachesLimit: Reaches
  readonly reachesFull: Reaches
  /** Some days ahead, the drawn ones and the horizon's: lines between them are straight. */
  readonly fan: readonly FanPoint[]
  /** Of past forecasts made by the same procedure, how many held (a fortnight later, within P10 to P90), and of how many. */
  readonly held: number
  readonly tried: number
}

export interface NoOutlook {
  readonly today: number
  readonly usedBytes: number
  readonly limitBytes: number
  readonly fullBytes: number
  readonly why: 'too few days' | 'too few days since a step'
}

const dayMilliseconds = 86_400_000
const triedAhead = 14
const triedStride = 6
const mostTried = 12

/** @param fullBytes what volumes can have of the pool */
export function outlookOf({ firstDay, firstWeekday, levels }: DailyLevels, fullBytes: number): Outlook | NoOutlook {
  const limitBytes = fullBytes * limitRatio
  const today = firstDay + (levels.length - 1) * dayMilliseconds
  const usedBytes = levels[levels.length - 1] ?? 0
  const found = forecastGrowth({ firstWeekday, bytes: levels }, limitBytes, horizonDays)
  if ('why' in found) return { today, usedBytes, limitBytes, fullBytes, why: found.why }
  const until = (limit: number, pick: keyof Reaches) =>
    daysToFull(ahead => (ahead === 0 ? usedBytes : (found.fan[ahead - 1]?.[pick] ?? usedBytes)), limit, horizonDays)
  const reaches = (limit: number) => ({
    p10: until(limit, 'p10'),
    p50: until(limit, 'p50'),
    p90: until(limit, 'p90'),
  })
  return {
    ...{ today, usedBytes, limitBytes, fullBytes },
    slopeBytesPerDay: found.slopeBytesPerDay,
    windowDays: found.windowDays,
    stepAt: found.startDay === 0 ? null : firstDay + found.startDay * dayMilliseconds,
    reachesLimit: reaches(limitBytes),
    reachesFull: reaches(fullBytes),
    fan: found.fan.filter(({ daysAhead }) => daysAhead <= drawnDays || daysAhead === horizonDays || daysAhead === 365),
    ...pastTries(levels, firstWeekday),
  }
}

/** How forecasts from past days would have held, each made from nothing but what was known then. */
function pastTries(levels: Float64Array, firstWeekday: number): { readonly held: number; readonly tried: number } {
  let held = 0
  let tried = 0
  for (let end = levels.length - triedAhead; end > 0 && tried < mostTried; end -= triedStride) {
    const then = forecastGrowth({ firstWeekday, bytes: levels.subarray(0, end) }, Number.POSITIVE_INFINITY, triedAhead)
    if ('why' in then) break
    const point = then.fan[triedAhead - 1]
    const truth = levels[end - 1 + triedAhead] ?? Number.NaN
    tried += 1
    if (point !== undefined && truth >= point.p10 && truth <= point.p90) held += 1
  }
  return { held, tried }
}

/** The fan on any day ahead, on straight lines between those that were kept; today's level on the day itself. */
export function fanOn({ fan, usedBytes }: Pick<Outlook, 'fan' | 'usedBytes'>, daysAhead: number): FanPoint {
  const after = fan.find(each => each.daysAhead >= daysAhead)
  const start: FanPoint = { daysAhead: 0, p10: usedBytes, p50: usedBytes, p90: usedBytes }
  const before = fan.findLast(each => each.daysAhead <= daysAhead) ?? start
  if (after === undefined || after.daysAhead === before.daysAhead) return { ...before, daysAhead }
  const share = (daysAhead - before.daysAhead) / (after.daysAhead - before.daysAhead)
  const at = (pick: 'p10' | 'p50' | 'p90') => before[pick] + (after[pick] - before[pick]) * share
  return { daysAhead, p10: at('p10'), p50: at('p50'), p90: at('p90') }
}
