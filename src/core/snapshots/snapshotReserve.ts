import { quantileSorted } from 'd3-array'

/**
 * The room that snapshots of a volume need under a retention: the P95 over its history of what was changed within the reach of the oldest
 * that is kept. What is overwritten twice between two snapshots is counted twice: what is stated is enough, never too little.
 * @param changedBytesByHour bytes changed in each hour of the history, oldest first
 * @param reachHours age of the oldest snapshot that the retention keeps (hours)
 * @param writtenBytes of the volume: snapshots between two hold no more than was there, for each of them
 * @returns bytes; 0 where there is no history
 */
export function snapshotReserve(
  changedBytesByHour: readonly number[],
  reachHours: number,
  keptCount: number,
  writtenBytes: number,
): number {
  const reach = Math.max(1, Math.min(Math.round(reachHours), changedBytesByHour.length))
  if (changedBytesByHour.length === 0 || keptCount === 0) return 0
  let sum = 0
  const sums: number[] = []
  changedBytesByHour.forEach((bytes, hour) => {
    sum += bytes - (hour >= reach ? (changedBytesByHour[hour - reach] ?? 0) : 0)
    if (hour >= reach - 1) sums.push(sum)
  })
  // A history shorter than the reach is carried on at its own rate.
  const longer = Math.max(1, reachHours / reach)
  const p95 =
    quantileSorted(
      sums.sort((a, b) => a - b),
      0.95,
    ) ?? 0
  return Math.min(p95 * longer, writtenBytes * keptCount)
}
