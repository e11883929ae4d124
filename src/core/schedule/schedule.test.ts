import { DateTime } from 'luxon'
import fc from 'fast-check'
import { eachLocal, plainRule } from './plainRule'
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

test('a plain rule happens at the local times that the library gives', () => {
  const list = (below: number) =>
    fc
      // The library ends at the first time after a span, in the order of its lists.
      .uniqueArray(fc.integer({ min: 0, max: below - 1 }), { minLength: 1, maxLength: 3 })
      .map(all => all.sort((a, b) => a - b))
  const days = fc.uniqueArray(fc.constantFrom('MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'), { minLength: 1, maxLength: 4 })
  const parts = fc.record({
    FREQ: fc.constantFrom('DAILY', 'WEEKLY'),
    INTERVAL: fc.option(fc.integer({ min: 1, max: 9 }), { nil: undefined }),
    BYDAY: fc.option(days, { nil: undefined }),
    BYHOUR: fc.option(list(24), { nil: undefined }),
    BYMINUTE: fc.option(list(60), { nil: undefined }),
    BYSECOND: fc.option(list(60), { nil: undefined }),
  })
  let plainOnes = 0
  fc.assert(
    fc.property(
      parts,
      fc.integer({ min: 0, max: 40 * 86_400 }),
      fc.integer({ min: 0, max: 60 }),
      (parts, begin, skipped) => {
        const rule = Object.entries(parts)
          .flatMap(([name, value]) => (value === undefined ? [] : [`${name}=${[value].flat().join(',')}`]))
          .join(';')
        const start = Date.UTC(2026, 0, 1) + begin * 1000
        const plain = plainRule(rule, start)
        if (plain === undefined) return
        plainOnes += 1
        const span = { from: start + skipped * 86_400_000, to: start + 60 * 86_400_000 }
        const found: number[] = []
        eachLocal(plain, start, span, local => found.push(local) > 0)
        const wanted = new RRule({ ...RRule.parseString(rule), dtstart: new Date(start) })
          .between(new Date(span.from), new Date(span.to), true)
          .map(each => each.getTime())
        expect(found.filter(local => local >= span.from && local <= span.to)).toEqual(wanted)
      },
    ),
    { numRuns: 80 },
  )
  expect(plainOnes).toBeGreaterThan(30)
})

test.each([
  'FREQ=MONTHLY',
  'FREQ=DAILY;COUNT=3',
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
