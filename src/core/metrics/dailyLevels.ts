const day = 86_400_000

export interface DailyLevels {
  /** The first day's midnight, UTC (milliseconds since 1970). */
  readonly firstDay: number
  /** 0 = Monday. */
  readonly firstWeekday: number
  /** The level at the end of each day, without gaps. */
  readonly levels: Float64Array
  /** Days of which nothing was measured: they lie on the line between their neighbours (by index). */
  readonly gaps: readonly number[]
}

/**
 * The level at the end of each day, from the last that was measured on each. Days without one lie between their neighbours, so that a
 * trend can be laid through; a chart must show them as gaps.
 * @param measured the last of some days, in the order of time
 * @returns undefined for none
 */
export function dailyLevels(
  measured: readonly { readonly at: number; readonly value: number }[],
): DailyLevels | undefined {
  const first = measured[0]
  const last = measured.at(-1)
  if (first === undefined || last === undefined) return undefined
  const firstDay = Math.floor(first.at / day) * day
  const count = Math.floor((last.at - firstDay) / day) + 1
  const levels = new Float64Array(count).fill(Number.NaN)
  for (const { at, value } of measured) levels[Math.floor((at - firstDay) / day)] = value
  const gaps: number[] = []
  let known = 0
  for (let index = 0; index < count; index += 1) {
    if (Number.isNaN(levels[index])) continue
    for (let gap = known + 1; gap < index; gap += 1) {
      gaps.push(gap)
      const share = (gap - known) / (index - known)
      levels[gap] = (levels[known] ?? 0) * (1 - share) + (levels[index] ?? 0) * share
    }
    known = index
  }
  // 1970 began on a Thursday.
  return { firstDay, firstWeekday: (firstDay / day + 3) % 7, levels, gaps }
}
