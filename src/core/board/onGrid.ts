import type { Samples } from '../metrics'

interface Grid {
  readonly from: number
  readonly until: number
  readonly steps: number
}

/**
 * Samples on an even grid: the mean of each step, NaN where nothing was measured. A sample stands for a while after its instant: a rate for
 * as long as systems take for one at most, a level that is only noted when it changes until the next.
 * @param from inclusive, @param until exclusive, @param holds so long (milliseconds; from and until since 1970)
 */
export function onGrid({ times, values }: Samples, { from, until, steps }: Grid, holds: number): Float64Array {
  const sums = new Float64Array(steps)
  const counts = new Float64Array(steps)
  const lasts = new Float64Array(steps)
  const width = (until - from) / steps
  let [before, beforeAt] = [Number.NaN, Number.NEGATIVE_INFINITY]
  for (let index = 0; index < times.length; index += 1) {
    const at = times[index] ?? Number.NaN
    if (at < from) {
      before = values[index] ?? Number.NaN
      beforeAt = at
      continue
    }
    if (at >= until) break
    const step = Math.min(steps - 1, Math.floor((at - from) / width))
    sums[step] = (sums[step] ?? 0) + (values[index] ?? Number.NaN)
    counts[step] = (counts[step] ?? 0) + 1
    lasts[step] = at
  }
  return sums.map((sum, step) => {
    const count = counts[step] ?? 0
    if (count > 0) {
      before = sum / count
      beforeAt = lasts[step] ?? 0
      return before
    }
    return from + step * width - beforeAt < holds ? before : Number.NaN
  })
}

/**
 * The least and the most of each step, so that a peak that the mean hides is seen; NaN where nothing was measured.
 * @returns undefined where no step has two samples that differ: the means are all there is
 */
export function extremesOnGrid(
  { times, values }: Samples,
  { from, until, steps }: Grid,
): { readonly low: Float64Array; readonly high: Float64Array } | undefined {
  const low = new Float64Array(steps).fill(Number.NaN)
  const high = new Float64Array(steps).fill(Number.NaN)
  const width = (until - from) / steps
  let isMore = false
  for (let index = 0; index < times.length; index += 1) {
    const at = times[index] ?? Number.NaN
    const value = values[index] ?? Number.NaN
    if (at < from || at >= until || Number.isNaN(value)) continue
    const step = Math.min(steps - 1, Math.floor((at - from) / width))
    const [least = Number.NaN, most = Number.NaN] = [low[step], high[step]]
    isMore ||= value < least || value > most
    low[step] = value > least ? least : value
    high[step] = value < most ? most : value
  }
  return isMore ? { low, high } : undefined
}
