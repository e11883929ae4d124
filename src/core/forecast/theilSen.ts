/**
 * Puts the k-th smallest of the first `count` values at its place, those below it before it. Hoare's selection with the middle of three
 * as the pivot; by itself and for numbers only, since a trend is hundreds of medians (d3's took eleven times as long for the 3,486 slopes of 84 days).
 */
function select(values: Float64Array, k: number, count: number): void {
  let left = 0
  let right = count - 1
  while (left < right) {
    const [a, b, c] = [values[left] ?? 0, values[(left + right) >> 1] ?? 0, values[right] ?? 0]
    const pivot = Math.max(Math.min(a, b), Math.min(Math.max(a, b), c))
    let low = left
    let high = right
    while (low <= high) {
      while ((values[low] ?? 0) < pivot) low += 1
      while ((values[high] ?? 0) > pivot) high -= 1
      if (low > high) break
      const swapped = values[low] ?? 0
      values[low] = values[high] ?? 0
      values[high] = swapped
      low += 1
      high -= 1
    }
    if (k <= high) right = high
    else if (k >= low) left = low
    else return
  }
}

/** The value at a place of the sorted first `count`, or the mean of it and the one before. */
function middleOf(values: Float64Array, at: number, count: number, isMean: boolean): number {
  select(values, at, count)
  const upper = values[at] ?? Number.NaN
  if (!isMean) return upper
  let lower = values[0] ?? Number.NaN
  for (let before = 1; before < at; before += 1) lower = Math.max(lower, values[before] ?? Number.NaN)
  return (lower + upper) / 2
}

/** From so many values on it pays to look at a sample of them first. */
const manyValues = 600
const sampled = 64
/** Places of the sample to either side of its middle between which the median of all is nearly always. */
const reach = 9
const sample = new Float64Array(sampled)
const band = new Float64Array(4096)

/**
 * The median of many values in one pass: those between two of a sample are gathered, those below are counted. @returns undefined where
 * the median lies outside, or too much inside
 */
function medianFromBand(values: Float64Array, count: number): number | undefined {
  for (let at = 0; at < sampled; at += 1) sample[at] = values[Math.floor((at * count) / sampled)] ?? 0
  sample.sort()
  const low = sample[sampled / 2 - reach] ?? 0
  const high = sample[sampled / 2 + reach] ?? 0
  let below = 0
  let inside = 0
  for (let at = 0; at < count; at += 1) {
    const value = values[at] ?? 0
    if (value < low) below += 1
    else if (value <= high) {
      if (inside === band.length) return undefined
      band[inside] = value
      inside += 1
    }
  }
  const above = (count >> 1) - below
  return above < 1 || above >= inside ? undefined : middleOf(band, above, inside, count % 2 === 0)
}

/** The middle value, or the mean of the two in the middle. @param values finite; put into another order @param count of them, from the first on */
export function medianInPlace(values: Float64Array, count: number): number {
  if (count === 0) return Number.NaN
  const above = count >> 1
  if (count >= manyValues) {
    const found = medianFromBand(values, count)
    if (found !== undefined) return found
  }
  return middleOf(values, above, count, count % 2 === 0)
}

/** The slopes of all pairs, those of neighbours first. @returns how many */
function slopesOf(values: Float64Array, pairs: Float64Array): number {
  const n = values.length
  let count = 0
  for (let apart = 1; apart < n; apart += 1) {
    const inverse = 1 / apart
    for (let at = apart; at < n; at += 1) {
      pairs[count] = ((values[at] as number) - (values[at - apart] as number)) * inverse
      count += 1
    }
  }
  return count
}

/** Puts slopes of pairs that lie evenly over all of them into the sample, sorted. */
function sampleSlopes(values: Float64Array, count: number): void {
  const n = values.length
  let apart = 1
  let before = 0
  for (let taken = 0; taken < sampled; taken += 1) {
    const wanted = Math.floor((taken * count) / sampled)
    while (wanted >= before + n - apart) {
      before += n - apart
      apart += 1
    }
    const at = apart + wanted - before
    sample[taken] = ((values[at] as number) - (values[at - apart] as number)) / apart
  }
  sample.sort()
}

/** Where the median of slopes was last, and how far to either side a twelfth of them lay: windows that overlap have medians near each other. */
export class SlopeHint {
  center = Number.NaN
  half = 0
}

/** So much of all slopes is to lie in the next band. */
const bandShare = 1 / 12

/**
 * The median of all slopes without keeping them: those between two bounds are gathered, those below are counted. The bounds say only
 * where to look: the median is exact. @returns undefined where it lies outside, or too much inside
 */
function slopeWithin(values: Float64Array, count: number, low: number, high: number, hint: SlopeHint) {
  const n = values.length
  let below = 0
  let inside = 0
  for (let apart = 1; apart < n; apart += 1) {
    const inverse = 1 / apart
    for (let at = apart; at < n; at += 1) {
      // Within their bounds: the loop is the whole cost, and takes no tests.
      const slope = ((values[at] as number) - (values[at - apart] as number)) * inverse
      if (slope < low) below += 1
      else if (slope <= high) {
        band[inside] = slope
        inside += 1
      }
    }
    if (inside > band.length - n) return undefined
  }
  const above = (count >> 1) - below
  if (above < 1 || above >= inside) return undefined
  const found = middleOf(band, above, inside, count % 2 === 0)
  hint.center = found
  hint.half = ((high - low) * bandShare * count) / inside / 2
  return found
}

/** First where the hint says, else between two slopes of a sample. */
function slopeFromBand(values: Float64Array, count: number, hint: SlopeHint): number | undefined {
  if (hint.half > 0) {
    const near = slopeWithin(values, count, hint.center - hint.half, hint.center + hint.half, hint)
    if (near !== undefined) return near
  }
  sampleSlopes(values, count)
  return slopeWithin(values, count, sample[sampled / 2 - reach] ?? 0, sample[sampled / 2 + reach] ?? 0, hint)
}

/**
 * The median of the slopes of all pairs, over equally spaced points. Not pulled by outliers of up to 29% of the points.
 * @param pairs scratch of at least n·(n − 1)/2 @param hint of the fits before, kept for the next @returns slope per step
 * @see Sen 1968, Estimates of the regression coefficient based on Kendall's tau
 */
export function theilSenSlope(values: Float64Array, pairs: Float64Array, hint = new SlopeHint()): number {
  const count = (values.length * (values.length - 1)) / 2
  const found = count >= manyValues ? slopeFromBand(values, count, hint) : undefined
  return found ?? medianInPlace(pairs, slopesOf(values, pairs))
}
