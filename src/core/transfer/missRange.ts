const quantile90 = 1.2815515655446004 // of the normal distribution

/** The 0.9 quantile of Student's t; within 0.002 from 4 degrees of freedom on. Source: Abramowitz & Stegun, 26.7.5. */
function studentQuantile90(freedom: number): number {
  const z = quantile90
  const first = (z ** 3 + z) / 4
  const second = (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96
  const third = (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384
  return z + first / freedom + second / freedom ** 2 + third / freedom ** 3
}

/** How much the guess of the spread weighs, in degrees of freedom. */
const weightOfSpread = 4
/** How far a kind's middle may lie from its forecast before anything is learned, in spreads of one job. */
const biasInSpreads = 2

/**
 * In what range the next job's miss will lie in four of five cases, by the misses of earlier jobs of the kind: the predictive Student-t
 * of logarithms, with a prior for the kind's middle and one for its spread, so that few jobs give a range that is wide enough, and many
 * the spread that they have. Plain quantiles of a few misses are too narrow: three jobs never tell how far the fourth may lie outside.
 * @param misses actual ÷ base seconds, each above 0
 * @param untried standard deviation of the logarithm that is assumed while nothing has been learned
 * @returns factors of the base seconds. Source: Gelman et al., Bayesian Data Analysis, 3.4 (semi-conjugate prior, the spread's estimate
 *   put in for the spread).
 */
export function missRange(misses: readonly number[], untried: number): { p10: number; p50: number; p90: number } {
  const logs = misses.map(Math.log)
  const count = logs.length
  const mean = count === 0 ? 0 : logs.reduce((sum, log) => sum + log, 0) / count
  const squares = logs.reduce((sum, log) => sum + (log - mean) ** 2, 0)
  const freedom = weightOfSpread + Math.max(0, count - 1)
  const variance = (weightOfSpread * untried ** 2 + squares) / freedom
  const precision = 1 / (biasInSpreads * untried) ** 2 + count / variance
  const middle = ((count / variance) * mean) / precision
  const reach = studentQuantile90(freedom) * Math.sqrt(variance + 1 / precision)
  return { p10: Math.exp(middle - reach), p50: Math.exp(middle), p90: Math.exp(middle + reach) }
}
