import { medianInPlace } from './theilSen'

/** How many usual daily changes one has to exceed to be a step: a bulk load, a mass delete. */
const stepFactor = 6

/**
 * Days on which the series steps: the change is more than six times the median daily change of the whole series.
 * @returns indices of days, in order
 */
export function shiftDays(series: ArrayLike<number>): number[] {
  const changes = Float64Array.from({ length: Math.max(0, series.length - 1) }, (_, at) =>
    Math.abs((series[at + 1] ?? Number.NaN) - (series[at] ?? Number.NaN)),
  )
  const scale = medianInPlace(Float64Array.from(changes), changes.length)
  return [...changes].flatMap((change, at) => (change > stepFactor * scale ? [at + 1] : []))
}

/** The first day of what can be continued into the future: the last step, or the beginning. */
export const windowStart = (series: ArrayLike<number>): number => shiftDays(series).at(-1) ?? 0
