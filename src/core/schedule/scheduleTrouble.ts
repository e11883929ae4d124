import { RRule } from './rule'
import { basicTime, occurrences, type Recurrence } from './occurrences'
import { isZone } from './zoneOffsets'

/** Snapshots oftener than every five minutes are replication's work, and a list that nobody reads. */
export const mostADay = 288
const dayMilliseconds = 86_400_000

/** Why a recurrence cannot be a schedule, in a sentence that names the rule; undefined where it can. */
export function scheduleTrouble(recurrence: Recurrence): string | undefined {
  if (!isZone(recurrence.timeZone))
    return `No time zone is called "${recurrence.timeZone}"; an IANA name is wanted, such as Europe/Lisbon.`
  const start = basicTime(recurrence.start)
  if (Number.isNaN(start)) return 'It has no beginning that can be read: YYYYMMDDTHHMMSS, local in its zone.'
  if (/(^|;)FREQ=SECONDLY(;|$)/i.test(recurrence.rule)) return 'FREQ=SECONDLY happens too often for any system.'
  try {
    const { freq } = RRule.parseString(recurrence.rule)
    if (freq === undefined) return 'The rule says no FREQ: HOURLY, DAILY, WEEKLY, MONTHLY or YEARLY.'
    const [first] = occurrences(recurrence, new Date(0), new Date(start + 400 * dayMilliseconds), 1)
    if (first === undefined) return 'It never happens within a year of its beginning.'
    const day = occurrences(recurrence, first, new Date(first.getTime() + dayMilliseconds), mostADay + 1)
    if (day.length > mostADay)
      return `It would happen more than ${mostADay} times a day; every five minutes is the most.`
    return undefined
  } catch (cause) {
    return `The rule cannot be read (RFC 5545): ${cause instanceof Error ? cause.message : String(cause)}.`
  }
}

/** A rule as a sentence says it: `every day at 6 and 18`, `every hour, at :20`; the rule itself where it cannot be read. */
export function ruleInWords(rule: string): string {
  try {
    const parsed = RRule.parseString(rule)
    const words = new RRule(parsed).toText()
    // The library's words leave minutes out.
    const minutes = [parsed.byminute ?? []].flat().filter(each => each !== null)
    if (minutes.length === 0 || minutes.every(each => each === 0)) return words
    return `${words}, at ${minutes.map(each => `:${String(each).padStart(2, '0')}`).join(' and ')}`
  } catch {
    return rule
  }
}
