/** How one series moves with another. */
export interface Moving {
  /** Pearson's r of the changes from step to step, at the lag where it is strongest; 0 where too little is known. */
  readonly strength: number
  /** By so many steps the other follows; less than 0 where it goes before. */
  readonly lag: number
  /** It is stronger than chance would have it at that many steps and lags. */
  readonly isTold: boolean
  /** r at each lag, from −most to most. */
  readonly byLag: Float64Array
}

/** So few pairs of changes say nothing. */
const leastPairs = 12

/** Changes from step to step; NaN beside a gap. */
const changesOf = (values: Float64Array) =>
  Float64Array.from(
    { length: Math.max(0, values.length - 1) },
    (_, at) => (values[at + 1] ?? Number.NaN) - (values[at] ?? Number.NaN),
  )

/**
 * How the changes of a series go with those of another at each lag. Changes, not levels: two series that both grow would always go together.
 * @param one, @param other on one grid, NaN for gaps
 */
export function movesWith(one: Float64Array, other: Float64Array, mostLag: number): Moving {
  const [a, b] = [changesOf(one), changesOf(other)]
  const byLag = new Float64Array(2 * mostLag + 1)
  let best = { strength: 0, lag: 0, pairs: 0 }
  for (let lag = -mostLag; lag <= mostLag; lag += 1) {
    const { r, pairs } = pearson(a, b, lag)
    byLag[lag + mostLag] = r
    if (Math.abs(r) > Math.abs(best.strength)) best = { strength: r, lag, pairs }
  }
  // By chance alone |r| stays below this in 99 of 100 such tries over all lags (Fisher's z, Bonferroni).
  const tries = 2 * mostLag + 1
  const bar = best.pairs > 3 ? Math.tanh(quantileOfNormal(1 - 0.005 / tries) / Math.sqrt(best.pairs - 3)) : 1
  return { strength: best.strength, lag: best.lag, isTold: Math.abs(best.strength) > bar, byLag }
}

/** Pearson's r of a[i] and b[i + lag], where both are known. */
function pearson(a: Float64Array, b: Float64Array, lag: number): { readonly r: number; readonly pairs: number } {
  let [pairs, sumA, sumB, squaresA, squaresB, products] = [0, 0, 0, 0, 0, 0]
  for (let at = Math.max(0, -lag); at < a.length && at + lag < b.length; at += 1) {
    const [x, y] = [a[at] ?? Number.NaN, b[at + lag] ?? Number.NaN]
    if (Number.isNaN(x) || Number.isNaN(y)) continue
    pairs += 1
    sumA += x
    sumB += y
    squaresA += x * x
    squaresB += y * y
    products += x * y
  }
  if (pairs < leastPairs) return { r: 0, pairs }
  const spreadA = squaresA - (sumA * sumA) / pairs
  const spreadB = squaresB - (sumB * sumB) / pairs
  // What does not move goes with nothing; rounding must not make it go.
  if (spreadA <= squaresA * 1e-12 || spreadB <= squaresB * 1e-12) return { r: 0, pairs }
  const r = (products - (sumA * sumB) / pairs) / Math.sqrt(spreadA * spreadB)
  return { r: Math.max(-1, Math.min(1, r)), pairs }
}

/** The quantile of the standard normal distribution for p above a half. Source: Abramowitz and Stegun 26.2.23; its error is below 4.5e-4. */
function quantileOfNormal(p: number): number {
  const t = Math.sqrt(-2 * Math.log(1 - p))
  return t - (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t * t * t)
}
