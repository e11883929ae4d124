import fc from 'fast-check'
import { sampleClass, sampleId, samplePool, sampleSnapshot, sampleVolume } from '../estate/testing/samples'
import {
  latestDue,
  latestDueOf,
  lossesSurvived,
  measures,
  momentsDue,
  promisesOf,
  rankPools,
  snapshotNeed,
  type Asked,
} from '.'

const tebibyte = 1024n ** 4n
const pool = (number: number, more: object = {}) =>
  samplePool({
    id: sampleId(number),
    name: `pool-${number}`,
    rawBytes: 14n * tebibyte,
    usableBytes: 10n * tebibyte,
    groupSizes: [12],
    ...more,
  })
const asked = (more: Partial<Asked> = {}): Asked => ({
  sizeBytes: tebibyte,
  isThin: true,
  serviceClass: sampleClass(),
  answering: new Set([sampleId(1)]),
  ...more,
})
const now = new Date('2026-05-02T12:30:00Z')
const around = (more: object = {}) => ({ serviceClass: sampleClass(), pool: pool(1), snapshots: [], now, ...more })
const statesOf = (lines: ReturnType<typeof promisesOf>) =>
  Object.fromEntries(lines.map(each => [each.promise, each.state]))

test('each promise has its state and what was measured; what is not promised has no line', () => {
  const inTime = [sampleSnapshot(1, { takenAt: '2026-05-02T12:00:10.000Z' })]
  expect(statesOf(promisesOf(sampleVolume(), around({ snapshots: inTime })))).toEqual({
    resilience: 'kept',
    media: 'kept',
    latency: 'not measured',
    snapshots: 'kept',
    headroom: 'kept',
  })
  const bare = sampleClass({
    lossesSurvived: null,
    media: 'any',
    latencyMilliseconds: null,
    headroomRatio: null,
    snapshotRule: null,
  })
  expect(promisesOf(sampleVolume(), around({ serviceClass: bare }))).toEqual([])
})

test.each([
  [0.0015, 'kept'],
  [0.0017, 'at risk'],
  [0.0021, 'broken'],
  [null, 'not measured'],
] as const)('a latency of %p s against a promised two milliseconds is %s', (p95Seconds, state) => {
  const serviceClass = sampleClass({ latencyMilliseconds: 2 })
  expect(statesOf(promisesOf(sampleVolume(), around({ serviceClass, p95Seconds })))['latency']).toBe(state)
})

test.each([
  [
    'a pool that survives less',
    { pool: pool(1, { scheme: { kind: 'mirror', copies: 2 } }) },
    {},
    'resilience',
    'broken',
  ],
  [
    'a pool of a layout that nobody knows',
    { pool: pool(1, { scheme: { kind: 'unknown', stated: '?' } }) },
    {},
    'resilience',
    'not measured',
  ],
  ['a pool that is degraded', { pool: pool(1, { state: 'degraded' }) }, {}, 'resilience', 'at risk'],
  ['bytes that are lost', {}, { lostBytes: 1n }, 'resilience', 'broken'],
  ['a pool of other media', { pool: pool(1, { driveKind: { media: 'HDD', protocol: 'SAS' } }) }, {}, 'media', 'broken'],
  ['a pool that nobody knows', { pool: undefined }, {}, 'media', 'not measured'],
  [
    'a pool that is nearly at its limit',
    { pool: pool(1, { writtenBytes: (78n * tebibyte) / 10n }) },
    {},
    'headroom',
    'at risk',
  ],
  ['a pool beyond its limit', { pool: pool(1, { writtenBytes: 9n * tebibyte }) }, {}, 'headroom', 'broken'],
  ['no snapshot yet', {}, {}, 'snapshots', 'at risk'],
  ['the latest too old', { snapshots: [sampleSnapshot(1)] }, {}, 'snapshots', 'broken'],
  [
    'the latest on its way out',
    { snapshots: [sampleSnapshot(1, { takenAt: '2026-05-02T12:00:10.000Z', goesAt: '2026-05-09T00:00:00Z' })] },
    {},
    'snapshots',
    'at risk',
  ],
] as const)('%s', (_, more, volume, promise, state) => {
  expect(statesOf(promisesOf(sampleVolume(volume), around(more)))[promise]).toBe(state)
})

test('losses survived follow the layout', () => {
  const survived = (scheme: object) => lossesSurvived(pool(1, { scheme }))
  expect([
    survived({ kind: 'parity', parityDrives: 2 }),
    survived({ kind: 'mirror', copies: 3 }),
    survived({ kind: 'erasure', dataPieces: 8, parityPieces: 3 }),
    survived({ kind: 'copies', copies: 2 }),
    survived({ kind: 'unknown', stated: 'x' }),
  ]).toEqual([2, 2, 3, 1, undefined])
})

test('the latest moment that was due is found however seldom the rule is', () => {
  expect(latestDue('FREQ=HOURLY', 'UTC', now)?.toISOString()).toBe('2026-05-02T12:00:00.000Z')
  expect(latestDue('FREQ=WEEKLY;BYDAY=SU', 'UTC', now)?.toISOString()).toBe('2026-04-26T00:00:00.000Z')
  expect(latestDue('FREQ=YEARLY;BYMONTH=2', 'UTC', now)?.toISOString()).toBe('2026-02-01T00:00:00.000Z')
  expect(latestDue('FREQ=YEARLY;BYMONTH=2', 'UTC', new Date('2026-01-09T00:00:00Z'))).toBeUndefined()
})

test('in quiet hours nothing comes due, also over midnight and by the clocks of the zone', () => {
  const night = { snapshotRule: 'FREQ=HOURLY', timeZone: 'Europe/Lisbon', quietHours: { from: 22, to: 6 } }
  const due = (text: string, more: object = {}) => latestDueOf({ ...night, ...more }, new Date(text))?.toISOString()
  // Lisbon is an hour ahead of UTC in May: 21:00 there is the last before the night, 06:00 the first after it.
  expect(due('2026-05-02T04:59:00Z')).toBe('2026-05-01T20:00:00.000Z')
  expect(due('2026-05-02T05:00:00Z')).toBe('2026-05-02T05:00:00.000Z')
  expect(due('2026-05-02T04:59:00Z', { quietHours: null })).toBe('2026-05-02T04:00:00.000Z')
  // All of it quiet: nothing is ever due.
  expect(due('2026-05-02T04:59:00Z', { snapshotRule: 'FREQ=DAILY;BYHOUR=3' })).toBeUndefined()
  expect(due('2026-05-02T04:59:00Z', { snapshotRule: null })).toBeUndefined()
})

test('the room that snapshots need follows what changes and how far they reach, and has a bound', () => {
  const tebi = 1024n ** 4n
  const need = (retention: object, ratio = 0.02, snapshotRule: string | null = 'FREQ=HOURLY') =>
    snapshotNeed({ snapshotRule, timeZone: 'UTC', retention }, tebi, ratio)
  const ofTebi = (bytes: bigint | undefined) => Number(bytes) / Number(tebi)
  expect(ofTebi(need({ daily: 30 }))).toBeCloseTo(0.6)
  expect(ofTebi(need({ hourly: 24 }))).toBeCloseTo(0.02)
  // The rules' reach is that of the farthest, not their sum.
  expect(ofTebi(need({ hourly: 24, daily: 30 }))).toBeCloseTo(0.6)
  expect(ofTebi(need({ keepLast: 4 }, 0.02, 'FREQ=WEEKLY'))).toBeCloseTo(0.02 * 28, 1)
  // No snapshot holds more than all of it.
  expect(ofTebi(need({ daily: 2 }, 10))).toBeCloseTo(2)
  expect(need({ daily: 30 }, 0.02, null)).toBeUndefined()
  expect(need({ daily: 30 }, 0.02, 'FREQ=NEVER')).toBeUndefined()
})

test('a pool that is kept for one application is out for every other', () => {
  const kept = pool(1, { keptFor: 'register' })
  const out = (application?: string) =>
    rankPools([kept], asked({ ...(application === undefined ? {} : { application }) }))[0]?.out
  expect(out()).toEqual(['kept for register'])
  expect(out('catalogue')).toEqual(['kept for register'])
  expect(out('register')).toEqual([])
})

test('what bars a pool is said of each, and pools that are barred stand last', () => {
  const ranked = rankPools(
    [
      pool(1, { driveKind: { media: 'HDD', protocol: 'SAS' } }),
      pool(2, { scheme: { kind: 'mirror', copies: 2 } }),
      pool(3, { state: 'starting' }),
      pool(4, { writtenBytes: 9n * tebibyte }),
      pool(5, { systemId: sampleId(2) }),
      pool(6),
    ],
    asked({ isThin: false, sizeBytes: 2n * tebibyte }),
  )
  expect(ranked[0]).toMatchObject({ name: 'pool-6', out: [] })
  expect(Object.fromEntries(ranked.map(({ name, out }) => [name, out]))).toMatchObject({
    'pool-1': ['of HDD, SSD promised'],
    'pool-2': ['survives 1, 2 promised'],
    'pool-3': ['still being initialised'],
    'pool-4': ['1 TiB too little room', '10% free, 20% promised'],
    'pool-5': ['its system does not answer'],
  })
})

test('scores are sums of their parts, within what each weighs; more room never scores less', () => {
  expect(measures.reduce((sum, { of }) => sum + of, 0)).toBe(100)
  const written = fc.bigInt(0n, 10n * tebibyte)
  fc.assert(
    fc.property(written, written, (one, other) => {
      const [first, second] = rankPools(
        [pool(1, { writtenBytes: one }), pool(2, { writtenBytes: other })],
        asked({ serviceClass: undefined }),
      )
      for (const each of [first, second]) {
        expect(each?.score).toBeCloseTo(each?.parts.reduce((sum, { points }) => sum + points, 0) ?? NaN)
        for (const { measure, points } of each?.parts ?? [])
          expect(points).toBeLessThanOrEqual(measures.find(known => known.measure === measure)?.of ?? 0)
      }
      if (first !== undefined && second !== undefined && first.out.length === 0 && second.out.length === 0)
        expect(first.score).toBeGreaterThanOrEqual(second.score)
    }),
  )
})

test('what is coming to a pool, how it answers and where its hosts stand count; what is not known weighs half', () => {
  const [first, second] = [pool(1), pool(2, { systemId: sampleId(2) })]
  const both = asked({ serviceClass: undefined, answering: new Set([sampleId(1), sampleId(2)]) })
  const partsOf = (more: Partial<Asked>, of = first) =>
    Object.fromEntries(
      rankPools([first, second], { ...both, ...more })
        .find(each => each.poolId === of.id)
        ?.parts.map(each => [each.measure, each]) ?? [],
    )
  expect(partsOf({})).toMatchObject({ load: { place: 0.5 }, distance: { place: 0.5 } })
  const trend = (p95Seconds: number | null, growthBytesPerDay: number | null) => ({
    trends: new Map([[first.id, { poolId: first.id, p95Seconds, growthBytesPerDay }]]),
  })
  const growing = partsOf(trend(null, Number(tebibyte) / 20))['room']
  expect(growing?.words).toBe('4.5 TiB free then')
  expect(growing?.points).toBeLessThan(partsOf({})['room']?.points ?? 0)
  expect(partsOf(trend(null, Number(tebibyte)))['room']?.words).toContain('full by then')
  // What shrinks may grow again: no room is promised to come of it.
  expect(partsOf(trend(null, -Number(tebibyte)))['room']).toEqual(partsOf({})['room'])
  const load = (seconds: number) => partsOf(trend(seconds, null))['load']?.place ?? NaN
  expect([load(0.00001), load(10)]).toEqual([1, 0])
  const sites = {
    ofSystems: new Map([
      [sampleId(1), 'canal'],
      [sampleId(2), 'hill'],
    ]),
    ofHosts: ['canal', null],
  }
  expect(partsOf({ sites })['distance']).toMatchObject({ place: 1, words: 'at their site' })
  expect(partsOf({ sites }, second)['distance']).toMatchObject({ words: 'at another site' })
  expect(partsOf({ sites }, second)['distance']?.place).toBeCloseTo(0.2)
})

test.each([
  [null, 'broken'],
  [{ role: 'source', state: 'filling', partner: 'TT-2' }, 'at risk'],
  [{ role: 'source', state: 'alike', partner: 'TT-2' }, 'kept'],
  [{ role: 'source', state: 'broken', partner: 'TT-2' }, 'broken'],
] as const)('a copy elsewhere is promised: %j keeps it so: %s', (mirror, state) => {
  const serviceClass = sampleClass({ copyWithinMinutes: 15 })
  const lines = promisesOf({ lostBytes: 0n, mirror }, around({ serviceClass }))
  expect(lines.find(({ promise }) => promise === 'copy')).toMatchObject({
    ...{ promised: 'a copy on another system, at most 15 minutes old', state },
  })
  expect(promisesOf({ lostBytes: 0n, mirror }, around()).some(({ promise }) => promise === 'copy')).toBe(false)
})

test('the moments between two instants are those of the rule, without quiet hours and the first instant itself', () => {
  const hourly = sampleClass({ quietHours: { from: 3, to: 5 } })
  const at = (text: string) => new Date(`2026-05-02T${text}:00Z`)
  const told = momentsDue(hourly, at('01:00'), at('06:00')).map(each => each.toISOString().slice(11, 16))
  expect(told).toEqual(['02:00', '05:00', '06:00'])
  expect(momentsDue(hourly, at('06:00'), at('06:00'))).toEqual([])
  expect(momentsDue(sampleClass({ snapshotRule: null }), at('01:00'), at('06:00'))).toEqual([])
})
