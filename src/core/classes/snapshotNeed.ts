import type { ServiceClass } from '../estate'
import type { RetentionRule } from '../retention'
import { occurrences, scheduleTrouble } from '../schedule'
import { snapshotReserve } from '../snapshots'
import { recurrenceOf } from './promises'

const hoursOf: Readonly<Record<Exclude<RetentionRule, 'keepLast'>, number>> = {
  hourly: 1,
  daily: 24,
  weekly: 168,
  monthly: 730.5,
  yearly: 8766,
}
const hourMilliseconds = 3_600_000
const lookDays = 60
/** Hours of history from which the need is told: changes go on alike, so that more would say the same. */
const steadyHours = 24

/**
 * The room that a class's snapshots of a volume will need once it is full and its retention has run its course.
 * @param changeRatioADay of what is written, what is overwritten in a day
 * @returns bytes; undefined where the class takes none
 */
export function snapshotNeed(
  { snapshotRule, timeZone, retention }: Pick<ServiceClass, 'snapshotRule' | 'timeZone' | 'retention'>,
  writtenBytes: bigint,
  changeRatioADay: number,
): bigint | undefined {
  if (snapshotRule === null) return undefined
  const recurrence = recurrenceOf(snapshotRule, timeZone)
  if (scheduleTrouble(recurrence) !== undefined) return undefined
  const from = new Date(Date.UTC(2026, 0, 1))
  const taken = occurrences(recurrence, from, new Date(from.getTime() + lookDays * 24 * hourMilliseconds))
  const everyHours = (lookDays * 24) / Math.max(1, taken.length)
  const kept = Object.entries(retention) as [RetentionRule, number | undefined][]
  const reachHours = Math.max(
    0,
    ...kept.map(
      ([rule, count = 0]) => count * (rule === 'keepLast' ? everyHours : Math.max(everyHours, hoursOf[rule])),
    ),
  )
  const keptCount = kept.reduce((sum, [, count = 0]) => sum + count, 0)
  const changed = Array.from({ length: steadyHours }, () => (Number(writtenBytes) * changeRatioADay) / 24)
  return BigInt(Math.round(snapshotReserve(changed, reachHours, keptCount, Number(writtenBytes))))
}
