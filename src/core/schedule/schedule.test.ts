import { DateTime } from 'luxon'
import fc from 'fast-check'
import { eachLocal, plainRule, type PlainRule } from './plainRule'
import { RRule } from './rule'
import {
  instantOf,
  isQuiet,
  mostADay,
  nextAfter,
  occurrences,
  offsetAt,
  scheduleTrouble,
  smeared,
  ruleInWords,
} from '.'

const zones = ['Europe/Lisbon', 'America/St_Johns', 'Australia/Lord_Howe', 'Asia/Kolkata', 'UTC']
const weekdays = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
const hours = fc.integer({ min: Date.UTC(2020, 0, 1) / 3.6e6, max: Date.UTC(2030, 0, 1) / 3.6e6 })

test('a local time that is there once is the instant that a calendar library says', () => {
  fc.assert(
    fc.property(fc.constantFrom(...zones), hours, (zone, hour) => {
      const at = hour * 3.6e6
      const local = DateTime.fromMillis(at, { zone })
      expect(offsetAt(at, zone)).toBe(local.offset * 60_000)
      // Of a repeated local time it is the first.
      expect(instantOf(at + local.offset * 60_000, zone)).toBeLessThanOrEqual(at)
      expect(at - instantOf(at + local.offset * 60_000, zone)).toBeLessThanOrEqual(3.6e6)
    }),
  )
})

test('what recurs daily happens once every local day, whatever clocks do', () => {
  fc.assert(
    fc.property(fc.constantFrom(...zones), fc.integer({ min: 0, max: 23 }), (timeZone, hour) => {
      const recurrence = {
        start: `20260101T${`${hour}`.padStart(2, '0')}3000`,
        timeZone,
        rule: 'FREQ=DAILY',
        except: [],
      }
      const year = occurrences(recurrence, new Date('2026-01-02T00:00:00Z'), new Date('2026-12-30T00:00:00Z'))
      expect(Math.abs(year.length - 362)).toBeLessThanOrEqual(1)
      for (const [index, at] of year.entries())
        if (index > 0) expect(at.getTime() - (year[index - 1]?.getTime() ?? 0)).toBeGreaterThanOrEqual(22 * 3.6e6)
    }),
    { numRuns: 20 },
  )
})

test('the next one is told, and none where the rule has ended', () => {
  const recurrence = {
    start: '20260101T060000',
    timeZone: 'UTC',
    rule: 'FREQ=DAILY;COUNT=3',
    except: ['20260102T060000'],
  }
  expect(nextAfter(recurrence, new Date('2026-01-01T06:00:00Z'))).toEqual(new Date('2026-01-03T06:00:00Z'))
  expect(nextAfter(recurrence, new Date('2026-01-03T06:00:00Z'))).toBeUndefined()
})

test.each([
  ['Mars/Olympus', '20260101T000000', 'FREQ=DAILY', 'time zone'],
  ['UTC', 'tomorrow', 'FREQ=DAILY', 'no beginning'],
  ['UTC', '20260101T000000', 'FREQ=SECONDLY', 'too often'],
  ['UTC', '20260101T000000', 'FREQ=MINUTELY', `more than ${mostADay} times a day`],
  ['UTC', '20260101T000000', 'BYHOUR=3', 'no FREQ'],
  ['UTC', '20260101T000000', 'FREQ=NOW', 'no FREQ'],
  ['UTC', '20260101T000000', 'FREQ=DAILY;COLOUR=RED', 'cannot be read'],
])('%s %s %s is no schedule: %s', (timeZone, start, rule, why) =>
  expect(scheduleTrouble({ timeZone, start, rule, except: [] })).toContain(why),
)

test('hourly, daily and every five minutes are schedules', () => {
  for (const rule of ['FREQ=HOURLY', 'FREQ=DAILY;BYHOUR=1,13', 'FREQ=MINUTELY;INTERVAL=5'])
    expect(scheduleTrouble({ timeZone: 'Europe/Lisbon', start: '20260101T000000', rule, except: [] })).toBeUndefined()
})

test('starts are spread over the tolerance, each always at its own place', () => {
  const due = new Date('2026-01-01T00:00:00Z')
  const late = Array.from(
    { length: 1000 },
    (_, index) => smeared(due, `volume-${index}`, 300).getTime() - due.getTime(),
  )
  expect(smeared(due, 'volume-7', 300)).toEqual(smeared(due, 'volume-7', 300))
  expect(Math.max(...late)).toBeLessThan(300_000)
  const inEachMinute = [0, 1, 2, 3, 4].map(minute => late.filter(ms => Math.floor(ms / 60_000) === minute).length)
  for (const count of inEachMinute) expect(count).toBeGreaterThan(120)
})

test('quiet hours may pass midnight', () => {
  expect([21, 22, 3, 6, 7].map(hour => isQuiet(hour, { from: 22, to: 7 }))).toEqual([false, true, true, true, false])
  expect(isQuiet(12, { from: 9, to: 17 })).toBe(true)
})

const some = (least: number, most: number) =>
  // The library ends at the first time after a span, in the order of its lists.
  fc
    .uniqueArray(fc.integer({ min: least, max: most }), { minLength: 1, maxLength: 3 })
    .map(all => all.sort((a, b) => a - b))
const maybe = <T>(values: fc.Arbitrary<T>) => fc.option(values, { nil: undefined })
const limits = fc.record({
  INTERVAL: maybe(fc.integer({ min: 1, max: 90 })),
  COUNT: maybe(fc.integer({ min: 1, max: 40 })),
  BYMONTH: maybe(some(1, 3)),
  BYMONTHDAY: maybe(fc.uniqueArray(fc.integer({ min: 1, max: 31 }), { minLength: 10, maxLength: 20 })),
  BYDAY: maybe(fc.uniqueArray(fc.constantFrom(...weekdays), { minLength: 1, maxLength: 4 })),
  BYHOUR: maybe(some(0, 23)),
  BYMINUTE: maybe(some(0, 59)),
  BYSECOND: maybe(some(0, 59)),
})
const ruleOf = (parts: object) =>
  Object.entries(parts)
    .flatMap(([name, value]) => (value === undefined ? [] : [`${name}=${[value].flat().join(',')}`]))
    .join(';')
const begins = fc.integer({ min: 0, max: 40 * 86_400 }).map(seconds => Date.UTC(2026, 0, 1) + seconds * 1000)

/** The calendar is the same again after 400 years. The library looks for what is rare until the year 9999. */
const later = 19 * 146_097 * 86_400_000

/** What a plain rule says of the days after one. */
const foundIn = (plain: PlainRule, start: number, skippedDays: number, days: number) => {
  const from = start + skippedDays * 86_400_000
  const span = { from, to: from + days * 86_400_000 }
  const found: number[] = []
  eachLocal(plain, start, span, local => found.push(local) > 0)
  return { ...span, found: found.filter(local => local >= span.from && local <= span.to) }
}

test('a plain rule of days happens at the local times that the library gives', () => {
  let plainOnes = 0
  fc.assert(
    fc.property(fc.constantFrom('DAILY', 'WEEKLY'), limits, begins, fc.nat(60), (FREQ, parts, start, skipped) => {
      const INTERVAL = parts.INTERVAL === undefined ? undefined : (parts.INTERVAL % 9) + 1
      const rule = ruleOf({ FREQ, ...parts, INTERVAL })
      const plain = plainRule(rule, start)
      if (plain === undefined) return
      plainOnes += 1
      const { from, to, found } = foundIn(plain, start, skipped, 60)
      const wanted: number[] = []
      new RRule({ ...RRule.parseString(rule), dtstart: new Date(start + later) }).all(at => {
        const local = at.getTime() - later
        if (local >= from && local <= to) wanted.push(local)
        return local <= to
      })
      expect(found).toEqual(wanted)
    }),
    { numRuns: 100 },
  )
  expect(plainOnes).toBeGreaterThan(30)
})

// The library steps for ever through some of these: what they say is looked at minute by minute.
test('a plain rule of hours or minutes happens in each minute that its parts allow', () => {
  fc.assert(
    fc.property(fc.constantFrom('HOURLY', 'MINUTELY'), limits, begins, fc.nat(9), (FREQ, parts, start, skipped) => {
      const unit = FREQ === 'HOURLY' ? 3_600_000 : 60_000
      const plain = plainRule(ruleOf({ FREQ, ...parts }), start)
      if (plain === undefined) throw new Error('It is a plain one.')
      const { from, to, found } = foundIn(plain, start, skipped, 4)
      const begin = new Date(start)
      const allows = (minute: number) => {
        const at = new Date(minute)
        const steps = Math.floor(minute / unit) - Math.floor(start / unit)
        const minutes = parts.BYMINUTE ?? (FREQ === 'HOURLY' ? [begin.getUTCMinutes()] : [at.getUTCMinutes()])
        return (
          steps % (parts.INTERVAL ?? 1) === 0 &&
          minutes.includes(at.getUTCMinutes()) &&
          (parts.BYHOUR?.includes(at.getUTCHours()) ?? true) &&
          (parts.BYDAY?.includes(weekdays[(at.getUTCDay() + 6) % 7] ?? '') ?? true) &&
          (parts.BYMONTHDAY?.includes(at.getUTCDate()) ?? true) &&
          (parts.BYMONTH?.includes(at.getUTCMonth() + 1) ?? true)
        )
      }
      const all: number[] = []
      for (let minute = Math.floor(start / 60_000) * 60_000; minute <= to; minute += 60_000)
        if (allows(minute)) for (const s of parts.BYSECOND ?? [begin.getUTCSeconds()]) all.push(minute + s * 1000)
      const counted = all.filter(at => at >= start).slice(0, parts.COUNT ?? all.length)
      expect(found).toEqual(counted.filter(at => at >= from && at <= to))
    }),
    { numRuns: 60 },
  )
})

test('days counted from the end of a month', () => {
  const ends = { start: '20260105T060000', timeZone: 'UTC', rule: 'FREQ=HOURLY;BYMONTHDAY=-1;BYHOUR=3', except: [] }
  expect(occurrences(ends, new Date('2028-01-01'), new Date('2028-04-01')).map(at => at.toISOString())).toEqual([
    '2028-01-31T03:00:00.000Z',
    '2028-02-29T03:00:00.000Z',
    '2028-03-31T03:00:00.000Z',
  ])
})

test.each([
  'FREQ=MONTHLY;BYDAY=-1SU;BYHOUR=3',
  'FREQ=WEEKLY;INTERVAL=3;BYDAY=MO,TH',
  'FREQ=YEARLY;BYWEEKNO=1,53;BYDAY=WE',
  'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29',
  'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1;COUNT=9',
])('%s, looked at centuries later, happens when the library says', rule => {
  const start = Date.UTC(2026, 0, 5, 6)
  const wanted: Date[] = []
  new RRule({ ...RRule.parseString(rule), dtstart: new Date(start) }).all(at => wanted.push(at) < 9)
  const recurrence = { start: '20260105T060000', timeZone: 'UTC', rule, except: [] }
  expect(occurrences(recurrence, new Date(0), new Date('2099-01-01'), 9)).toEqual(wanted)
})

test('what began long ago, and what is asked for far ahead, lies before the end of the calendar', () => {
  const of = (start: string, from: string, to: string) =>
    occurrences({ start, timeZone: 'UTC', rule: 'FREQ=MONTHLY', except: [] }, new Date(from), new Date(to)).length
  expect(of('19970105T060000', '2026-01-01', '2027-01-01')).toBe(12)
  expect(of('19990131T060000', '2198-01-01', '2199-01-01')).toBe(7)
})

test.each([
  ['FREQ=HOURLY;INTERVAL=2;BYHOUR=1', 'never happens'],
  ['FREQ=HOURLY;INTERVAL=2;BYHOUR=1;BYMONTH=2', 'never happens'],
  ['FREQ=MINUTELY;BYMONTHDAY=31;BYMONTH=2', 'never happens'],
  ['FREQ=MINUTELY;INTERVAL=60;BYMINUTE=1;COUNT=1000000000', 'never happens'],
  ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', 'never happens'],
  ['FREQ=MONTHLY;BYDAY=MO,TU,WE;BYSETPOS=99', 'never happens'],
  ['FREQ=HOURLY;BYYEARDAY=366;BYHOUR=2', 'can be limited by BYMONTH'],
  ['FREQ=MINUTELY;BYSETPOS=7', 'can be limited by BYMONTH'],
  ['FREQ=YEARLY;BYEASTER=1', 'no part of a rule'],
])('%s keeps nothing waiting: it %s', (rule, why) =>
  expect(scheduleTrouble({ timeZone: 'UTC', start: '20260101T000000', rule, except: [] })).toContain(why),
)

test.each([
  'FREQ=MONTHLY',
  'FREQ=DAILY;BYSETPOS=1',
  'FREQ=WEEKLY',
  'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO',
  'FREQ=DAILY;BYDAY=1MO',
  'FREQ=DAILY;BYHOUR=24',
])('%s says more than a plain rule, and is left to the library', rule => expect(plainRule(rule, 0)).toBeUndefined())

test.each([
  ['FREQ=HOURLY', 'every hour'],
  ['FREQ=HOURLY;BYMINUTE=20', 'every hour, at :20'],
  ['FREQ=DAILY;BYHOUR=6;BYMINUTE=5,35', 'every day at 6, at :05 and :35'],
  ['no rule', 'no rule'],
])('%s is said as %s', (rule, words) => expect(ruleInWords(rule)).toBe(words))
