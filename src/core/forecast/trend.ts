import { medianInPlace, SlopeHint, theilSenSlope } from './theilSen'

export interface Trend {
  readonly slopeBytesPerDay: number
  /** Where the line stands on the last day, the day of the week taken out. */
  readonly levelBytes: number
  /** What a day of the week lies above the line, 0 = Monday (bytes). */
  readonly weekBytes: readonly number[]
}

const week = 7

/** Scratch for one window after another: what is fitted often allocates nothing. */
export class TrendFitter {
  readonly #pairs: Float64Array
  readonly #values: Float64Array
  readonly #some: Float64Array
  readonly #hint = new SlopeHint()

  /** @param mostDays the longest window */
  constructor(mostDays: number) {
    this.#pairs = new Float64Array(Math.max(1, (mostDays * (mostDays - 1)) / 2))
    this.#values = new Float64Array(mostDays)
    this.#some = new Float64Array(mostDays)
  }

  /**
   * The line through the last days before `end`: Theil–Sen after the median residual of each day of the week is taken out.
   * @param series used bytes of each day @param firstWeekday of the series' first day, 0 = Monday
   * @param days of the window, at least 2 @param end the day after the window's last
   */
  fit(series: ArrayLike<number>, firstWeekday: number, days: number, end = series.length): Trend {
    const from = end - days
    const values = this.#values.subarray(0, days)
    for (let x = 0; x < days; x += 1) values[x] = series[from + x] ?? Number.NaN
    const first = this.#line(values)
    const weekBytes = [0, 0, 0, 0, 0, 0, 0]
    for (let weekday = 0; weekday < week; weekday += 1) {
      const start = (((weekday - firstWeekday - from) % week) + week) % week
      const count = this.#residuals(values, first, start)
      if (count === 0) continue
      const component = medianInPlace(this.#some, count)
      weekBytes[weekday] = component
      for (let x = start; x < days; x += week) values[x] = (values[x] ?? Number.NaN) - component
    }
    const { slope, intercept } = this.#line(values)
    return { slopeBytesPerDay: slope, levelBytes: intercept + slope * (days - 1), weekBytes }
  }

  #line(values: Float64Array): { readonly slope: number; readonly intercept: number } {
    const slope = theilSenSlope(values, this.#pairs, this.#hint)
    for (let x = 0; x < values.length; x += 1) this.#some[x] = (values[x] ?? Number.NaN) - slope * x
    return { slope, intercept: medianInPlace(this.#some, values.length) }
  }

  /** Of one day of the week. @returns how many */
  #residuals(values: Float64Array, { slope, intercept }: { slope: number; intercept: number }, start: number): number {
    let count = 0
    for (let x = start; x < values.length; x += week) {
      this.#some[count] = (values[x] ?? Number.NaN) - (intercept + slope * x)
      count += 1
    }
    return count
  }
}
