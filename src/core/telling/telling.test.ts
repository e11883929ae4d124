import fc from 'fast-check'
import type { Rule } from '../estate'
import {
  addressTrouble,
  beginningOf,
  endOf,
  isQuietNow,
  judge,
  mattersOf,
  quietTrouble,
  syslogLine,
  type Matter,
  type Message,
  type Standing,
} from '.'

const rule = (more: Partial<Rule> = {}): Rule => ({
  id: 'r',
  name: 'Pools that fill',
  subject: 'findings',
  gravity: 'soon',
  beginsAt: null,
  endsAt: null,
  minutes: 0,
  quietFrom: null,
  quietTo: null,
  quietDays: null,
  timeZone: 'Europe/Lisbon',
  isUrgentAlways: false,
  roundAt: null,
  routeIds: [],
  revision: 1,
  ...more,
})
const matter = (key = 'a', more: Partial<Matter> = {}): Matter => ({
  key,
  gravity: 'soon',
  title: `Thing ${key}`,
  why: 'Because.',
  remedy: 'Do.',
  href: '/x',
  ...more,
})
const at = (minutes: number) => new Date(Date.UTC(2026, 4, 6, 12) + minutes * 60_000)
/** What is told over a course: at each minute what stands. */
function course(of: Rule, minutes: readonly (readonly Matter[])[]) {
  let known: readonly Standing[] = []
  const told: string[] = []
  minutes.forEach((standing, minute) => {
    const { begun, ended, kept } = judge(of, standing, known, at(minute))
    for (const each of begun) told.push(`${minute} ${each.key} begun`)
    for (const each of ended) told.push(`${minute} ${each.key} over`)
    known = kept
  })
  return told
}
const stands = (count: number, what: readonly Matter[] = [matter()]) => Array.from({ length: count }, () => what)

test('one cause is told once when it begins, and once when it has been over for a while', () => {
  expect(course(rule(), [...stands(3), ...stands(8, [])])).toEqual(['0 a begun', '8 a over'])
})

test('it must have stood for its minutes; what is over before is never told', () => {
  expect(course(rule({ minutes: 10 }), [...stands(9), ...stands(30, [])])).toEqual([])
  expect(course(rule({ minutes: 10 }), [...stands(12), ...stands(30, [])])).toEqual(['10 a begun', '22 a over'])
})

test('what goes and comes back is the same matter, and is counted', () => {
  const flapping = [...stands(2), ...stands(2, []), ...stands(2), ...stands(2, []), ...stands(2), ...stands(9, [])]
  expect(course(rule(), flapping)).toEqual(['0 a begun', '15 a over'])
  const known = [stands(1), stands(1, []), stands(1)]
    .flat()
    .reduce<readonly Standing[]>((before, standing, minute) => judge(rule(), standing, before, at(minute)).kept, [])
  expect(known[0]?.returns).toBe(1)
})

test('in quiet hours nothing is told but what calls for work now, and the rest follows when they are over', () => {
  // Lisbon is an hour ahead of UTC: from 13:10 to 13:20 there, which is the tenth to the twentieth minute.
  const quiet = { quietFrom: 13 + 10 / 60, quietTo: 13 + 20 / 60 }
  const both = [matter('a'), matter('b', { gravity: 'now' })]
  const standing = [...stands(12, []), ...stands(20, both)]
  expect(course(rule(quiet), standing)).toEqual(['20 a begun', '20 b begun'])
  expect(course(rule({ ...quiet, isUrgentAlways: true }), standing)).toEqual(['12 b begun', '20 a begun'])
})

test('quiet days are whole days by the clocks of the zone', () => {
  const weekend = rule({ quietDays: 'FREQ=WEEKLY;BYDAY=SA,SU' })
  expect(isQuietNow(weekend, new Date('2026-05-08T22:59:00Z'))).toBe(false)
  expect(isQuietNow(weekend, new Date('2026-05-08T23:01:00Z'))).toBe(true)
  expect(isQuietNow(weekend, new Date('2026-05-10T22:59:00Z'))).toBe(true)
  expect(isQuietNow(weekend, new Date('2026-05-10T23:01:00Z'))).toBe(false)
  expect(quietTrouble(weekend)).toBeUndefined()
  expect(quietTrouble(rule({ quietDays: 'FREQ=HOURLY' }))).toContain('whole days')
  expect(quietTrouble(rule({ quietFrom: 3 }))).toContain('a beginning and an end')
  expect(quietTrouble(rule({ quietFrom: 3, quietTo: 3 }))).toContain('differ')
  expect(quietTrouble(rule({ timeZone: 'Mars/Olympus' }))).toContain('Mars/Olympus')
})

test('a value that sways between where it begins and where it ends is told once', () => {
  const fill = rule({ subject: 'fill', beginsAt: 90, endsAt: 85 })
  const keys = (ratio: number, told: readonly string[]) =>
    mattersOf(
      fill,
      { findings: [], volumes: [], pools: [{ id: 'p', name: 'fast', fillRatio: ratio, daysToLimit: null }] },
      new Set(told),
    ).map(({ key }) => key)
  expect(keys(0.89, [])).toEqual([])
  expect(keys(0.9, [])).toEqual(['fill/p'])
  expect(keys(0.86, ['fill/p'])).toEqual(['fill/p'])
  expect(keys(0.84, ['fill/p'])).toEqual([])
})

test('days to the limit begin from above, and findings follow their gravity', () => {
  const facts = {
    findings: [matter('a'), matter('b', { gravity: 'now' })].map(each => ({ ...each, what: each.title })),
    pools: [
      { id: 'p', name: 'fast', fillRatio: 0.5, daysToLimit: 20 },
      { id: 'q', name: 'bulk', fillRatio: 0.5, daysToLimit: null },
    ],
    volumes: [{ id: 'v', name: 'photos-01', p95Milliseconds: 7 }],
  }
  const keys = (of: Rule) => mattersOf(of, facts, new Set()).map(({ key }) => key)
  expect(keys(rule())).toEqual(['a', 'b'])
  expect(keys(rule({ gravity: 'now' }))).toEqual(['b'])
  expect(keys(rule({ subject: 'days to limit', beginsAt: 21 }))).toEqual(['days/p'])
  expect(keys(rule({ subject: 'days to limit', beginsAt: 19 }))).toEqual([])
  expect(keys(rule({ subject: 'latency', beginsAt: 5 }))).toEqual(['latency/v'])
  expect(keys(rule({ subject: 'latency', beginsAt: null }))).toEqual([])
})

test('whatever comes and goes, each matter is begun before it is over, and never begun twice between', () => {
  const states = fc.array(fc.subarray(['a', 'b', 'c']), { minLength: 1, maxLength: 80 })
  fc.assert(
    fc.property(states, fc.integer({ min: 0, max: 12 }), (keys, minutes) => {
      const told = course(
        rule({ minutes }),
        keys.map(some => some.map(key => matter(key))),
      )
      for (const key of ['a', 'b', 'c']) {
        const own = told.map(each => each.split(' ')).filter(([, of]) => of === key)
        own.forEach(([, , state], index) => expect(state).toBe(index % 2 === 0 ? 'begun' : 'over'))
      }
    }),
  )
})

test('an address is judged by its way', () => {
  expect(addressTrouble('webhook', 'https://desk.example/told?x=1')).toBeUndefined()
  expect(addressTrouble('mail', 'smtp://mail.example:25')).toBeUndefined()
  expect(addressTrouble('syslog', 'udp://[::1]:514')).toBeUndefined()
  expect(addressTrouble('webhook', 'nonsense')).toContain('such as https://')
  expect(addressTrouble('webhook', 'ftp://x')).toContain('begins with https://')
  expect(addressTrouble('webhook', 'https://u:p@desk.example/')).toContain('beside it')
  expect(addressTrouble('syslog', 'udp://log.example/x')).toContain('host and a port only')
})

const message: Message = beginningOf(rule(), {
  key: 'fill/p',
  matter: matter('fill/p', { gravity: 'now' }),
  since: 0,
  toldAt: 0,
  goneSince: null,
  returns: 2,
})

test('what begins says why and how often it came back; what is over says how long it stood', () => {
  expect(message).toMatchObject({
    subject: 'Now: Thing fill/p',
    lines: ['Because.', 'Do.', 'It has gone and come back 2 times.'],
  })
  const over = endOf(rule(), { key: 'a', matter: matter(), since: 0, toldAt: 0, goneSince: 7_200_000, returns: 0 })
  expect(over).toMatchObject({ subject: 'Over: Thing a', state: 'ended', lines: ['It stood for 2 h.'] })
})

test('a line of syslog is of RFC 5424, whole, and holds no control characters whatever it is told of', () => {
  const line = syslogLine(message, 'host.example', new Date('2026-05-06T12:00:00Z'), 'id-1')
  expect(line).toBe(
    '<10>1 2026-05-06T12:00:00.000Z host.example wendrel - begun [matter@32473 id="id-1" state="begun" key="fill/p" rule="Pools that fill"] \ufeffNow: Thing fill/p Because. Do. It has gone and come back 2 times.',
  )
  fc.assert(
    fc.property(
      fc.string({ unit: 'binary', maxLength: 4000 }),
      fc.string({ unit: 'binary', maxLength: 400 }),
      (subject, key) => {
        const made = syslogLine({ ...message, subject, key }, 'a host', new Date(0), 'x')
        expect(new TextEncoder().encode(made).length).toBeLessThanOrEqual(2048)
        expect(made).not.toMatch(/[\u0000-\u001f\u007f]/)
        // Its structured data ends where it should: quotes and brackets within are escaped.
        expect(made).toMatch(
          /^<\d+>1 \S+ \S+ wendrel - begun \[matter@32473(?: [a-z]+="(?:[^"\\\]]|\\["\\\]])*")+\] \ufeff/u,
        )
      },
    ),
  )
})
