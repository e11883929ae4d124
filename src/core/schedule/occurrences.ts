import { eachLocal, plainRule } from './plainRule'
import { RRule } from './rule'
import { instantOf } from './zoneOffsets'

/** When something happens again and again. Source: RFC 5545, section 3.3.10. */
export interface Recurrence {
  /** The first time, local in the zone: `20260105T060000`. */
  readonly start: string
  /** Of the IANA database. */
  readonly timeZone: string
  /** The value of an RRULE: `FREQ=DAILY;BYHOUR=6,18`. */
  readonly rule: string
  /** Local times at which it does not happen. */
  readonly except: readonly string[]
}

const dayMilliseconds = 86_400_000
const localForm = /^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})Z?$/

/** A basic date and time as milliseconds, as if it were UTC; NaN where it is none. */
export function basicTime(text: string): number {
  const [, year, month, day, hour, minute, second] = (localForm.exec(text) ?? []).map(Number)
  return Date.UTC(year ?? NaN, (month ?? NaN) - 1, day, hour, minute, second)
}

/**
 * The instants at which it happens in a span. Recurrences are computed on local clock times, then each is turned into an instant; UNTIL is
 * an inclusive instant, COUNT counts from the start, before exceptions and whatever the span.
 * @param from inclusive, @param to exclusive
 * @param most after which it ends; a rule is never expanded without a bound
 * @returns ascending, each once
 * @throws {Error} where the rule cannot be read; `scheduleTrouble` says so before
 */
export function occurrences(recurrence: Recurrence, from: Date, to: Date, most = 100_000): Date[] {
  const { timeZone } = recurrence
  const rule = recurrence.rule.toUpperCase()
  const until = /(?:^|;)UNTIL=([0-9TZ]+)/.exec(rule)?.[1]
  const end = until === undefined ? Infinity : basicTime(until)
  const last = Math.min(to.getTime(), end + 1)
  const except = new Set(recurrence.except.map(basicTime))
  const found = new Set<number>()
  // Local times of the rule stand within a day of UTC's: it is looked at a little longer than needed on both sides.
  const span = { from: from.getTime() - 2 * dayMilliseconds, to: last + 2 * dayMilliseconds }
  const take = (local: number) => {
    if (local > span.to) return false
    // What the library gives from before is not made an instant: of years past each change of the clocks would be looked for.
    if (local < span.from || except.has(local)) return true
    const at = instantOf(local, timeZone)
    if (at >= from.getTime() && at < last) found.add(at)
    return found.size < most
  }
  const start = basicTime(recurrence.start)
  const bare = rule.replace(/(^|;)UNTIL=[0-9TZ]+/, '')
  const plain = plainRule(bare, start)
  if (plain === undefined) byLibrary(bare, start, span.to, take)
  else eachLocal(plain, start, span, take)
  return [...found].sort((a, b) => a - b).map(at => new Date(at))
}

/**
 * The Gregorian calendar repeats after 400 years, days of the week too. The library looks for a rule that never comes true until the year
 * 9999: from close to its end it has no more than 400 years to look through beyond what is asked for.
 */
const calendarMilliseconds = 146_097 * dayMilliseconds
const lastYear = 9999
const partsOfRules =
  /^(?:FREQ|INTERVAL|COUNT|WKST|BYSETPOS|BY(?:MONTH|WEEKNO|YEARDAY|MONTHDAY|DAY|HOUR|MINUTE|SECOND))$/

/**
 * @param to after which nothing is asked for
 * @param take is given local times in their order, and says whether to go on
 * @throws {Error} where the rule cannot be read
 */
function byLibrary(rule: string, start: number, to: number, take: (local: number) => boolean): void {
  for (const part of rule.split(';')) {
    const [name = ''] = part.split('=')
    if (!partsOfRules.test(name)) throw new Error(`"${name}" is no part of a rule`)
  }
  // For these it steps through every minute, and where none is left through none, for ever.
  if (/(^|;)FREQ=(HOURLY|MINUTELY|SECONDLY)(;|$)/.test(rule))
    throw new Error(
      'a rule of hours or minutes can be limited by BYMONTH, BYMONTHDAY, BYDAY without a number, BYHOUR, BYMINUTE, BYSECOND and COUNT',
    )
  // All that is asked for has to lie before that end.
  const cycles = Math.max(0, Math.floor((lastYear - 1 - new Date(Math.max(start, to)).getUTCFullYear()) / 400))
  const shift = cycles * calendarMilliseconds
  new RRule({ ...RRule.parseString(rule), dtstart: new Date(start + shift) }).all(local =>
    take(local.getTime() - shift),
  )
}

/** The first instant after another at which it happens; undefined where there is none within the span. */
export const nextAfter = (recurrence: Recurrence, after: Date, withinDays = 400): Date | undefined =>
  occurrences(recurrence, new Date(after.getTime() + 1), new Date(after.getTime() + withinDays * dayMilliseconds), 1)[0]
