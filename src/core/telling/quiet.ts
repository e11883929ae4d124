import { localHour, recurrenceOf } from '../classes'
import { isQuiet, isZone, occurrences, scheduleTrouble } from '../schedule'
import type { Rule } from '../estate'

type Quiet = Pick<Rule, 'quietFrom' | 'quietTo' | 'quietDays' | 'timeZone'>
const dayMilliseconds = 86_400_000

/** Whether nothing is told at an instant: by the hours of the day, or by the day. */
export function isQuietNow({ quietFrom, quietTo, quietDays, timeZone }: Quiet, now: Date): boolean {
  if (quietFrom !== null && quietTo !== null && isQuiet(localHour(now, timeZone), { from: quietFrom, to: quietTo }))
    return true
  if (quietDays === null) return false
  // The rule's moments are the beginnings of quiet days; one that began within the last day is today.
  const today = occurrences(
    recurrenceOf(quietDays, timeZone),
    new Date(now.getTime() - dayMilliseconds + 1),
    new Date(now.getTime() + 1),
  )
  return today.length > 0
}

/** Why quiet times cannot be kept; undefined where they can. */
export function quietTrouble({ quietFrom, quietTo, quietDays, timeZone }: Quiet): string | undefined {
  if (!isZone(timeZone)) return `No time zone is called ${timeZone.slice(0, 60)}.`
  if ((quietFrom === null) !== (quietTo === null)) return 'Quiet hours have a beginning and an end.'
  if (quietFrom !== null && quietFrom === quietTo) return 'Quiet hours have a beginning and an end, which differ.'
  if (quietDays === null) return undefined
  if (/BYHOUR|BYMINUTE|BYSECOND|FREQ=(HOURLY|MINUTELY|SECONDLY)/i.test(quietDays))
    return 'Quiet days are whole days: FREQ=WEEKLY;BYDAY=SA,SU.'
  return scheduleTrouble(recurrenceOf(quietDays, timeZone))
}
