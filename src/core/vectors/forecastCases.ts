import { daysToFull, rankFilling, shiftDays, TrendFitter, windowStart, type Filling } from '../forecast'
import { quantile } from '../transfer'

type ForecastInput =
  | {
      readonly ask: 'slope'
      readonly firstWeekday: number
      readonly windowDays: number
      readonly series: readonly number[]
    }
  | { readonly ask: 'shift'; readonly series: readonly number[] }
  | {
      readonly ask: 'timeToFull'
      readonly startBytes?: number
      readonly slopeBytesPerDay?: number
      readonly lineBytes?: readonly number[]
      readonly limitBytes: number
      readonly horizonDays: number
    }
  | { readonly ask: 'fan'; readonly errors: readonly number[] }
  | { readonly ask: 'ranking'; readonly items: readonly Filling[] }

export function forecast(input: ForecastInput): unknown {
  switch (input.ask) {
    case 'slope': {
      const { slopeBytesPerDay, levelBytes } = new TrendFitter(input.windowDays).fit(
        input.series,
        input.firstWeekday,
        input.windowDays,
      )
      return { slopeBytesPerDay, levelAtLastDayBytes: levelBytes }
    }
    case 'shift':
      return { shiftDays: shiftDays(input.series), windowStartDay: windowStart(input.series) }
    case 'timeToFull': {
      const { startBytes = 0, slopeBytesPerDay = 0, lineBytes, limitBytes, horizonDays } = input
      const line = (ahead: number) => lineBytes?.[ahead] ?? startBytes + slopeBytesPerDay * ahead
      return { daysToFull: daysToFull(line, limitBytes, horizonDays) }
    }
    case 'fan':
      return { p10: quantile(input.errors, 0.1), p50: quantile(input.errors, 0.5), p90: quantile(input.errors, 0.9) }
    case 'ranking':
      return { order: rankFilling(input.items).map(({ id }) => id) }
  }
}
