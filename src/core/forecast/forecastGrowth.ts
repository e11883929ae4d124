import { quantile } from '../transfer'
import { windowStart } from './shifts'
import { daysToFull } from './timeToFull'
import { TrendFitter, type Trend } from './trend'

export interface DailySeries {
  /** Of the first day, 0 = Monday. */
  readonly firstWeekday: number
  /** Used bytes at the end of each day, without gaps. */
  readonly bytes: ArrayLike<number>
}

export interface FanPoint {
  readonly daysAhead: number
  readonly p10: number
  readonly p50: number
  readonly p90: number
}

export interface GrowthForecast extends Trend {
  /** The days that the trend rests on (count). */
  readonly windowDays: number
  /** Days of the series before which a step has taken everything apart; 0 for none. */
  readonly startDay: number
  /** From tomorrow to the horizon: what is likely to be used. */
  readonly fan: readonly FanPoint[]
  /** The past days from which the same procedure was tried (count): what the fan's width rests on. */
  readonly origins: number
  /** Whole days until the limit is reached by each line of the fan; null: not within the horizon. P90 is the early one. */
  readonly daysToFull: { readonly p10: number | null; readonly p50: number | null; readonly p90: number | null }
}

/** Why nothing can be said. */
export interface NoForecast {
  readonly why: 'too few days' | 'too few days since a step'
}

const windows = [28, 56, 84] as const
const longest = 84
/** Less than this says nothing of a trend (days). */
const leastDays = 14
/** The procedure is tried from past days so far apart: no whole week, so that every day of the week comes. */
const originStride = 6
const mostOrigins = 12
const tried = [1, 7, 14, 30, 60, 90]
/** So many past errors at a horizon say something of it; where there are fewer, the scatter of the days' growth has to do. */
const leastErrors = 3
/** Four of five values of a normal distribution lie within so many standard deviations. */
const likely = 1.2816
const week = 7

/**
 * Continues a series of used bytes: the window of the trend is that which would have missed least from past days, and the fan's width is
 * how the same procedure missed from there.
 * @param horizonDays how far ahead, at least 1
 */
export function forecastGrowth(
  { firstWeekday, bytes }: DailySeries,
  limitBytes: number,
  horizonDays: number,
): GrowthForecast | NoForecast {
  const startDay = windowStart(bytes)
  const days = bytes.length - startDay
  if (days < leastDays) return { why: startDay === 0 ? 'too few days' : 'too few days since a step' }
  const past = new PastTries(bytes, firstWeekday, startDay)
  const windowDays = past.bestWindow(horizonDays)
  const trend = past.fit(windowDays, bytes.length)
  const errorsAt = past.errors(windowDays, horizonDays)
  const fan = Array.from({ length: horizonDays }, (_, index) => {
    const ahead = index + 1
    return fanPoint(lineOn(trend, ahead, firstWeekday + bytes.length - 1 + ahead), errorsAt, ahead)
  })
  const now = bytes[bytes.length - 1] ?? 0
  const until = (pick: 'p10' | 'p50' | 'p90') =>
    daysToFull(ahead => fan[ahead - 1]?.[pick] ?? now, limitBytes, horizonDays)
  return {
    ...trend,
    windowDays,
    startDay,
    fan,
    origins: past.origins.length,
    daysToFull: { p10: until('p10'), p50: until('p50'), p90: until('p90') },
  }
}

interface ErrorsAt {
  readonly daysAhead: number
  readonly p10: number
  readonly p50: number
  readonly p90: number
}

/** What a trend says of a day ahead: the line, and what its day of the week lies above it. @param weekday counted on from a Monday */
const lineOn = ({ slopeBytesPerDay, levelBytes, weekBytes }: Trend, daysAhead: number, weekday: number) =>
  levelBytes + slopeBytesPerDay * daysAhead + (weekBytes[weekday % 7] ?? 0)

/** Errors between horizons that were tried lie on a line between them; beyond the last they grow with the horizon. */
function fanPoint(base: number, errorsAt: readonly ErrorsAt[], daysAhead: number): FanPoint {
  const after = errorsAt.find(each => each.daysAhead >= daysAhead)
  const before = errorsAt.findLast(each => each.daysAhead <= daysAhead) ?? { daysAhead: 0, p10: 0, p50: 0, p90: 0 }
  const at = (pick: 'p10' | 'p50' | 'p90') => {
    if (after === undefined) return before.daysAhead === 0 ? 0 : (before[pick] * daysAhead) / before.daysAhead
    if (after.daysAhead === before.daysAhead) return after[pick]
    const share = (daysAhead - before.daysAhead) / (after.daysAhead - before.daysAhead)
    return before[pick] + (after[pick] - before[pick]) * share
  }
  return { daysAhead, p10: base + at('p10'), p50: base + at('p50'), p90: base + at('p90') }
}

/** The same procedure, as it would have gone from days that are past. */
class PastTries {
  readonly #fitter = new TrendFitter(longest)
  readonly #fitted = new Map<number, Trend>()
  /** Days after the last that was known then, the latest first. */
  readonly origins: readonly number[]

  constructor(
    private readonly bytes: ArrayLike<number>,
    private readonly firstWeekday: number,
    private readonly startDay: number,
  ) {
    const origins: number[] = []
    for (let end = bytes.length - 1; end - startDay >= leastDays && origins.length < mostOrigins; end -= originStride)
      origins.push(end)
    this.origins = origins
  }

  fit(windowDays: number, end: number): Trend {
    const days = Math.min(windowDays, end - this.startDay)
    const key = end * (longest + 1) + days
    const known = this.#fitted.get(key)
    if (known !== undefined) return known
    const fitted = this.#fitter.fit(this.bytes, this.firstWeekday, days, end)
    this.#fitted.set(key, fitted)
    return fitted
  }

  /** The window that would have missed least at the horizon, or as far ahead as there are past days for. */
  bestWindow(horizonDays: number): number {
    const days = this.bytes.length - this.startDay
    const possible = windows.filter((each, index) => index === 0 || each <= days)
    const ahead = Math.min(horizonDays, Math.max(1, Math.floor((days - leastDays) / 2)))
    let best: number = windows[0]
    let bestMiss = Number.POSITIVE_INFINITY
    for (const windowDays of possible) {
      // Half of the past days tell windows apart as well as all of them: each costs three trends.
      const misses = this.#misses(windowDays, ahead, 2)
      const miss = misses.reduce((sum, each) => sum + Math.abs(each), 0) / Math.max(1, misses.length)
      if (miss < bestMiss) [best, bestMiss] = [windowDays, miss]
    }
    return Math.min(best, days)
  }

  /** How it missed at each horizon that has enough past days. */
  errors(windowDays: number, horizonDays: number): readonly ErrorsAt[] {
    const found: ErrorsAt[] = []
    for (const daysAhead of tried.filter((ahead, index) => index === 0 || ahead <= horizonDays)) {
      const misses = this.#misses(windowDays, daysAhead)
      if (misses.length < leastErrors) {
        const days = this.bytes.length - this.startDay
        const spread = this.#scatter() * likely * widening(days / 2)
        const beside = spread * Math.sqrt(daysAhead + daysAhead ** 2 / days)
        found.push({ daysAhead, p10: -beside, p50: 0, p90: beside })
        continue
      }
      const spanned = (misses.length - 1) * originStride + daysAhead
      const apart = Math.min(misses.length, spanned / daysAhead)
      const [low, middle, high] = [0.1, 0.5, 0.9].map(rank => quantile(misses, rank)) as [number, number, number]
      const wider = widening(apart)
      // Nobody knows more of a farther day: past futures that overlap miss alike, and would say so. What a single day brings is of
      // its weekday, and says nothing of weeks.
      const before = found.findLast(each => each.daysAhead > 1)
      const below = Math.max((middle - low) * wider, before === undefined ? 0 : before.p50 - before.p10)
      const above = Math.max((high - middle) * wider, before === undefined ? 0 : before.p90 - before.p50)
      found.push({ daysAhead, p10: middle - below, p50: middle, p90: middle + above })
    }
    return found
  }

  /** How much one day's growth differs from that of the same day a week later (bytes): all that is known of a course before it could be tried. */
  #scatter(): number {
    const grown = (day: number) => (this.bytes[day + 1] ?? 0) - (this.bytes[day] ?? 0)
    const count = this.bytes.length - this.startDay - 1 - week
    let sum = 0
    for (let index = 0; index < count; index += 1)
      sum += (grown(this.startDay + index + week) - grown(this.startDay + index)) ** 2 / 2
    return Math.sqrt(sum / Math.max(1, count))
  }

  /** What was, less what would have been said, from every past day whose future is known so far ahead. */
  #misses(windowDays: number, ahead: number, everyNth = 1): number[] {
    return this.origins
      .filter((end, index) => end - 1 + ahead < this.bytes.length && index % everyNth === 0)
      .map(end => {
        const said = lineOn(this.fit(windowDays, end), ahead, this.firstWeekday + end - 1 + ahead)
        return (this.bytes[end - 1 + ahead] ?? Number.NaN) - said
      })
  }
}

/** The share of all that lies between P10 and P90. */
const coverage = 0.8
const leastApart = 2

/**
 * By how much the distance between order statistics of few errors falls short: between those at ranks 0.1 and 0.9 of n that can be
 * exchanged lie 0.8·(n − 1)/(n + 1) of what comes, not 0.8. Errors whose futures overlap count as the fewer that do not.
 * @param apart errors that do not overlap (count)
 */
export function widening(apart: number): number {
  const n = Math.max(leastApart, apart)
  return halfWidth(coverage) / halfWidth((coverage * (n - 1)) / (n + 1))
}

/** Standard deviations from the middle within which a share of normal values lies, to 2 in 1,000. @see Winitzki 2008, erf⁻¹ */
function halfWidth(share: number): number {
  const a = 0.147
  const log = Math.log(1 - share * share)
  const half = 2 / (Math.PI * a) + log / 2
  return Math.SQRT2 * Math.sqrt(Math.sqrt(half * half - log / a) - half)
}
