import { emptyEstate, type Estate } from '@/core/estate'
import { sampleId as id, samplePool, sampleSystem, sampleVolume } from '@/core/estate/testing/samples'
import { isReady } from '@/core/plan'
import { planIntent, readIntent } from '..'

const mebibyte = 1_048_576
const none = { requestsPerSecond: null, bytesPerSecond: null }
const volume = sampleVolume({ id: id(5), poolId: id(2), name: 'derived', limits: none })
const estate: Estate = {
  ...emptyEstate,
  systems: [sampleSystem({ revision: 1 })],
  pools: [samplePool({ id: id(2), driveKind: { media: 'HDD', protocol: 'SAS' }, groupSizes: [10] })],
  volumes: [volume],
  poolDemands: [
    {
      poolId: id(2),
      at: '2026-05-04T10:00:00.000Z',
      demands: [
        { id: id(5), requestsPerSecond: 1000, stationRequestsEach: 0.1, bytesPerSecond: 1000 * 65_536 },
        { id: id(6), requestsPerSecond: 400, stationRequestsEach: 0.1, bytesPerSecond: 400 * 8192 },
      ],
    },
  ],
}
const planned = (intent: object, more: Partial<Estate> = {}) =>
  planIntent(
    'limit-volume',
    readIntent('limit-volume', { volumeId: id(5), mostRequests: null, mostThroughput: '', ...intent }),
    () => Promise.resolve({ ...estate, ...more }),
    new Date('2026-05-05T10:00:00Z'),
  )
const broken = async (intent: object, more: Partial<Estate> = {}) =>
  (await planned(intent, more)).checks.filter(check => !check.holds).map(check => check.rule)

test('a limit says what its own hosts lose and what the others of the pool gain, in the hour in which it mattered', async () => {
  const plan = await planned({ mostRequests: 500 })
  expect(isReady(plan)).toBe(true)
  expect(plan.title).toBe('Limit derived to 500 requests a second')
  // 0.1 × 1400 × 6.2 ms = 0.868 busy before, 0.1 × 900 × 6.2 ms = 0.558 after.
  const figure = (name: string) => plan.effects.find(each => each.figure === name)
  expect(figure('limit')).toMatchObject({ before: 'no limit', after: '500 requests' })
  expect(figure('passed')).toMatchObject({ before: 1000, after: 500 })
  expect(figure('busy')?.before).toBeCloseTo(0.868, 6)
  expect(figure('busy')?.after).toBeCloseTo(0.558, 6)
  expect(figure('response')).toMatchObject({ before: '46.97 ms', after: '14.03 ms' })
  expect(plan.checks.find(check => check.rule === 'own-hosts')).toMatchObject({
    holds: false,
    level: 'warn',
    why: expect.stringContaining('(2026-05-04 10:00 UTC) derived was asked for 1,000 a second'),
  })
  expect(plan.reads.map(({ kind }) => kind)).toContain('volume')
})

test('throughput counts by the size that its requests have', async () => {
  const plan = await planned({ mostThroughput: '25 MiB/s' })
  expect(plan.title).toBe('Limit derived to 25 MiB a second')
  expect(plan.effects.find(each => each.figure === 'passed')?.after).toBe(400)
  expect(plan.steps[0]?.step).toMatchObject({ to: { requestsPerSecond: null, bytesPerSecond: 25 * mebibyte } })
})

test('a limit that nobody would have met warns of nothing', async () =>
  expect(await broken({ mostRequests: 5000 })).toEqual([]))

test('a limit is lifted by asking for none, and what it would ask for then is not claimed', async () => {
  const limited = { volumes: [{ ...volume, limits: { ...none, requestsPerSecond: 200 } }] }
  const plan = await planned({}, limited)
  expect([plan.title, isReady(plan)]).toEqual(['Lift the limit on derived', true])
  expect(plan.checks.find(check => check.rule === 'measured')?.why).toContain('shows once it has none')
})

test.each([
  ['fewer requests than a host needs to start', { mostRequests: 5 }, {}, ['requests']],
  ['half a request', { mostRequests: 99.5 }, {}, ['requests']],
  ['a throughput without a unit that is known', { mostThroughput: '20 furlongs' }, {}, ['size-unit']],
  ['next to no throughput', { mostThroughput: '1 KiB' }, {}, ['throughput']],
  ['the limit that it has', {}, {}, ['other']],
  ['a volume in holding', { mostRequests: 500 }, { volumes: [{ ...volume, state: 'holding' as const }] }, ['volume']],
  ['a system that takes none', { mostRequests: 500 }, { volumes: [{ ...volume, limits: null }] }, ['takes-limits']],
  ['no measurement', { mostRequests: 5000 }, { poolDemands: [] }, ['measured']],
])('%s', async (_, intent, more, rules) => expect(await broken(intent, more)).toEqual(expect.arrayContaining(rules)))

const neighbour = sampleVolume({ id: id(6), poolId: id(2), name: 'raw', limits: none })
const together = (intent: object, more: Partial<Estate> = {}) =>
  planIntent(
    'limit-volumes',
    readIntent('limit-volumes', { volumeIds: [id(5), id(6)], mostRequests: null, mostThroughput: '', ...intent }),
    () => Promise.resolve({ ...estate, volumes: [volume, neighbour], ...more }),
    new Date('2026-05-05T10:00:00Z'),
  )

test('one limit for several is a limit for each, and says what all of them leave to others', async () => {
  const plan = await together({ mostRequests: 300 })
  expect([isReady(plan), plan.title]).toEqual([true, 'Limit two volumes to 300 requests a second each'])
  expect(plan.steps.map(({ words }) => words)).toEqual([
    'Let derived be asked for 300 requests a second at most',
    'Let raw be asked for 300 requests a second at most',
  ])
  expect(plan.effects.find(each => each.figure === 'passed')).toMatchObject({ before: 1400, after: 600 })
  // What has the limit already is left as it is.
  const has = { ...neighbour, limits: { requestsPerSecond: 300, bytesPerSecond: null } }
  expect((await together({ mostRequests: 300 }, { volumes: [volume, has] })).steps).toHaveLength(1)
})

test.each([
  ['one that is gone', { mostRequests: 300 }, { volumes: [volume] }, ['volumes']],
  [
    'one in holding',
    { mostRequests: 300 },
    { volumes: [volume, { ...neighbour, state: 'holding' as const }] },
    ['volumes'],
  ],
  [
    'one whose system takes none',
    { mostRequests: 300 },
    { volumes: [volume, { ...neighbour, limits: null }] },
    ['takes-limits'],
  ],
  ['no other limit than they have', {}, {}, ['other']],
  ['a limit that is none', { mostRequests: 2 }, {}, ['requests']],
])('limits on several are barred by %s', async (_what, intent, more, rules) => {
  const { checks } = await together(intent, more)
  expect(checks.filter(each => !each.holds && each.level === 'must').map(({ rule }) => rule)).toEqual(rules)
})
