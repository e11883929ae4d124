import { latestDueOf, localHour, recurrenceOf, type SnapshotSchedule } from '@/core/classes'
import type { PlanCheck } from '@/core/plan'
import { retentionRules, type RetentionRule, type RetentionRules } from '@/core/retention'
import { isQuiet, occurrences, scheduleTrouble } from '@/core/schedule'
import { rule, warn } from './checks'

/** A schedule as a draft asks for it: texts may be empty, and numbers not said. */
export type ScheduleAsked = Readonly<
  { snapshotRule: string; timeZone: string; quietFrom?: number | null; quietTo?: number | null } & Partial<
    Record<RetentionRule, number | null>
  >
>

const mostKept = 2000

/** What a draft asks for, as it is kept: hours of which only half has been said are none. */
export function scheduleAsked(asked: ScheduleAsked): SnapshotSchedule {
  const { quietFrom, quietTo } = asked
  const retention: Record<string, number> = {}
  for (const each of retentionRules) if ((asked[each] ?? 0) > 0) retention[each] = asked[each] ?? 0
  return {
    snapshotRule: asked.snapshotRule.trim() === '' ? null : asked.snapshotRule.trim(),
    timeZone: asked.timeZone.trim() === '' ? 'UTC' : asked.timeZone.trim(),
    retention,
    quietHours: quietFrom == null || quietTo == null ? null : { from: quietFrom, to: quietTo },
  }
}

/** Whether a schedule comes due at all, keeps what it takes, and leaves the quiet hours. */
export function scheduleChecks(asked: ScheduleAsked, now: Date): readonly PlanCheck[] {
  const after = scheduleAsked(asked)
  return [
    ...(after.snapshotRule === null ? [nothingKept(after)] : ruleChecks(after, after.snapshotRule, now)),
    ...quietChecks(asked, after),
  ]
}

const countOf = ({ retention }: SnapshotSchedule) =>
  Object.values(retention).reduce((sum, each) => sum + (each ?? 0), 0)

const nothingKept = (after: SnapshotSchedule) =>
  rule(
    'retention',
    countOf(after) === 0,
    'It takes no snapshots.',
    'There is nothing to keep without a rule by which snapshots are taken.',
    { field: 'snapshotRule' },
  )

const yearMilliseconds = 366 * 86_400_000

/** The next moment at which a snapshot is due and the hour is not quiet; undefined where the next year has none. */
function nextDue({ snapshotRule, timeZone, quietHours }: SnapshotSchedule, now: Date): Date | undefined {
  if (snapshotRule === null) return undefined
  const after = latestDueOf({ snapshotRule, timeZone, quietHours }, now) ?? now
  const soon = new Date(after.getTime() + 1)
  const coming = occurrences(
    recurrenceOf(snapshotRule, timeZone),
    soon,
    new Date(soon.getTime() + yearMilliseconds),
    9000,
  )
  return coming.find(each => quietHours === null || !isQuiet(localHour(each, timeZone), quietHours))
}

function quietChecks({ quietFrom, quietTo }: ScheduleAsked, { snapshotRule }: SnapshotSchedule): readonly PlanCheck[] {
  if (quietFrom == null && quietTo == null) return []
  return [
    rule(
      'quiet',
      quietFrom != null && quietTo != null && quietFrom !== quietTo && snapshotRule !== null,
      `None is taken between ${quietFrom ?? 0} and ${quietTo ?? 0} o’clock.`,
      snapshotRule === null
        ? 'There are no snapshots that could be quiet.'
        : 'Quiet hours have a beginning and an end, which differ.',
      { field: 'quietFrom' },
    ),
  ]
}

function ruleChecks(after: SnapshotSchedule, snapshotRule: string, now: Date): readonly PlanCheck[] {
  const { timeZone, retention } = after
  const count = countOf(after)
  const trouble = scheduleTrouble(recurrenceOf(snapshotRule, timeZone))
  const next = trouble === undefined ? nextDue(after, now) : undefined
  return [
    rule(
      'schedule',
      trouble === undefined && next !== undefined,
      `The next is due ${next?.toISOString().slice(0, 16).replace('T', ' ') ?? ''} UTC.`,
      trouble ?? 'In the next year every moment of it lies in the quiet hours.',
      {
        field: 'snapshotRule',
      },
    ),
    rule(
      'retention',
      count > 0 && count <= mostKept,
      `At most ${count.toLocaleString('en')} snapshots are kept of each volume.`,
      count === 0
        ? 'Say how many are kept: without that they would fill the pool.'
        : `More than ${mostKept.toLocaleString('en')} of each volume are too many to look after.`,
      { field: 'keepLast' },
    ),
    warn(
      'hourly',
      retention.hourly === undefined ||
        !/FREQ=(DAILY|WEEKLY|MONTHLY|YEARLY)/i.test(snapshotRule) ||
        /BYHOUR/i.test(snapshotRule),
      'Hourly ones are kept only where the rule takes some each hour.',
      { field: 'snapshotRule' },
    ),
  ]
}

export const quietWords = (quiet: SnapshotSchedule['quietHours']): string | null =>
  quiet === null ? null : `from ${quiet.from} to ${quiet.to} o’clock`

/** How many are kept of each sort: `2 last, 24 hourly`. */
export const keptWords = (retention: RetentionRules) =>
  retentionRules
    .flatMap(each =>
      retention[each] === undefined ? [] : [`${retention[each]} ${each === 'keepLast' ? 'last' : each}`],
    )
    .join(', ') || null
