import { daysToFull } from '../forecast'
import { fanOn, horizonDays, type Outlook, type Reaches } from './outlook'

/** What a step would take off a pool: bytes at once, and growth from then on. */
export interface Relief {
  readonly bytes: number
  readonly bytesPerDay: number
  /** Added to what volumes can have of the pool: drives, for instance. */
  readonly roomBytes?: number
}

/**
 * When the limit would be reached after some relief: the same fan, lower by what goes at once and by the growth that goes with it. Its
 * width stays, since what stays is as uncertain as before.
 */
export function reachesAfter(
  outlook: Outlook,
  { bytes, bytesPerDay, roomBytes = 0 }: Relief,
  limitRatio: number,
): Reaches {
  const limit = outlook.limitBytes + roomBytes * limitRatio
  const until = (pick: keyof Reaches) =>
    daysToFull(ahead => fanOn(outlook, ahead)[pick] - bytes - bytesPerDay * ahead, limit, horizonDays)
  return { p10: until('p10'), p50: until('p50'), p90: until('p90') }
}

/** Growth of a series (bytes a day) between its first level of some last days and its last; steps in it are part of it. */
export function growthOver(levels: Float64Array, days: number): number {
  const last = levels.length - 1
  const first = Math.max(0, last - days)
  return last === first ? 0 : ((levels[last] ?? 0) - (levels[first] ?? 0)) / (last - first)
}
