/**
 * The value at a rank, by linear interpolation between order statistics.
 * @param values any order, at least one
 * @param rank 0 to 1
 */
export function quantile(values: readonly number[], rank: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  const position = rank * (sorted.length - 1)
  const below = sorted[Math.floor(position)] ?? Number.NaN
  const above = sorted[Math.ceil(position)] ?? below
  return below + (above - below) * (position - Math.floor(position))
}
