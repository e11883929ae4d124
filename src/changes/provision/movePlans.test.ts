import { emptyEstate, type Estate, type Snapshot } from '@/core/estate'
import { sampleId as id, samplePool, sampleSystem, sampleVolume } from '@/core/estate/testing/samples'
import { isReady, type Plan } from '@/core/plan'
import { planIntent, readIntent } from '..'

const tebibyte = 1024n ** 4n
const now = new Date('2026-05-04T10:00:00Z')
const system = sampleSystem({ revision: 1 })
const pool = (number: number, name: string, more: object = {}) =>
  samplePool({
    id: id(number),
    name,
    groupSizes: [10],
    rawBytes: 20n * tebibyte,
    usableBytes: 10n * tebibyte,
    writtenBytes: 4n * tebibyte,
    provisionedBytes: 6n * tebibyte,
    ...more,
  })
const group = { id: id(3), name: 'register', revision: 1 }
const host = (number: number, name: string, more: object = {}) => ({
  id: id(number),
  hostGroupId: group.id,
  name,
  agentAddress: `http://${name}`,
  operatingSystem: null,
  initiators: [`iqn.2019-04.example:${name}`],
  addresses: [],
  signIn: 'nothing' as const,
  siteId: null,
  revision: 1,
  ...more,
})
const volume = sampleVolume({
  id: id(5),
  poolId: id(2),
  name: 'data',
  sizeBytes: 2n * tebibyte,
  writtenBytes: tebibyte,
})
const estate: Estate = {
  ...emptyEstate,
  systems: [system],
  pools: [pool(2, 'fast'), pool(8, 'spare')],
  volumes: [volume],
  hostGroups: [group],
  hosts: [host(4, 'register-1')],
  mappings: [
    {
      id: id(6),
      systemId: system.id,
      locator: '/m',
      volumeId: volume.id,
      snapshotId: null,
      hostGroupId: group.id,
      groupName: group.name,
      lun: 3,
      revision: 1,
    },
  ],
}
const planned = (kind: string, intent: object, more: Partial<Estate> = {}) =>
  planIntent(kind, readIntent(kind, intent), async () => ({ ...estate, ...more }), now)
const fallen = ({ checks }: Plan) =>
  checks.filter(check => !check.holds && check.level === 'must').map(check => check.rule)
const warned = ({ checks }: Plan) =>
  checks.filter(check => !check.holds && check.level === 'warn').map(check => check.rule)
const move = { volumeId: volume.id, poolId: '', classId: '', ratePercent: 30 }
const moved = (more: object, slice: Partial<Estate> = {}) => planned('move-volume', { ...move, ...more }, slice)

test('a move takes a snapshot, reads it, moves, and says what it does to both pools', async () => {
  const plan = await moved({})
  expect(isReady(plan)).toBe(true)
  expect(plan.title).toBe('Move data to spare')
  expect(plan.steps.map(({ name }) => name)).toEqual(['take', 'sum', 'move'])
  const figure = (name: string) => plan.effects.find(each => each.figure === name)
  expect(figure('movedBytes')?.after).toBe(`${tebibyte}`)
  const gained = (poolId: string) => {
    const { before, after } = figure(`freeBytes/${poolId}`) ?? {}
    return BigInt(after ?? 0) - BigInt(before ?? 0)
  }
  expect([gained(id(2)), gained(id(8))]).toEqual([tebibyte, -tebibyte])
})

test('half the rate takes twice as long, and much of it is said to be felt', async () => {
  const seconds = async (ratePercent: number) =>
    (await moved({ ratePercent })).steps.find(({ name }) => name === 'move')?.forecast.p50Seconds ?? 0
  const [slow, quick] = [await seconds(15), await seconds(60)]
  expect((slow - 1) / (quick - 1)).toBeCloseTo(4, 1)
  expect(warned(await moved({ ratePercent: 80 }))).toContain('rate')
})

test('what its snapshots hold moves with it', async () => {
  const snapshot = {
    id: id(20),
    systemId: system.id,
    locator: '/s',
    volumeId: volume.id,
    name: 'data.old',
    naa: '6'.repeat(32),
    sizeBytes: volume.sizeBytes,
    takenAt: '2026-05-01T00:00:00Z',
    state: 'consistent',
    ownBytes: tebibyte,
    heldUntil: null,
    reason: null,
    dueAt: null,
    heldReason: null,
    goesAt: null,
    revision: 1,
  } satisfies Snapshot
  const plan = await moved({}, { snapshots: [snapshot] })
  expect(plan.effects.find(each => each.figure === 'movedBytes')?.after).toBe(`${2n * tebibyte}`)
  const clone = sampleVolume({ id: id(21), name: 'desk', cloneOfId: snapshot.id })
  expect(fallen(await moved({}, { snapshots: [snapshot], volumes: [volume, clone] }))).toEqual(['alone'])
})

test.each([
  ['no other pool', {}, { pools: [pool(2, 'fast')] }, ['pool']],
  [
    'only one that is too full',
    {},
    { pools: [pool(2, 'fast'), pool(8, 'spare', { writtenBytes: 10n * tebibyte })] },
    ['pool'],
  ],
  [
    'one chosen that is too full',
    { poolId: id(8) },
    { pools: [pool(2, 'fast'), pool(8, 'spare', { writtenBytes: 10n * tebibyte })] },
    ['fits'],
  ],
  [
    'one of another system',
    { poolId: id(9) },
    { pools: [pool(2, 'fast'), pool(9, 'far', { systemId: id(77) })] },
    ['pool'],
  ],
  [
    'one that has failed',
    { poolId: id(8) },
    { pools: [pool(2, 'fast'), pool(8, 'spare', { state: 'failed' })] },
    ['pool'],
  ],
  ['its own', { poolId: id(2) }, {}, ['pool']],
  ['a class that is gone', { classId: id(30) }, {}, ['class']],
  ['a volume in holding', {}, { volumes: [{ ...volume, state: 'holding' as const }] }, ['volume']],
])('%s is no place to move to', async (_, more, slice, rules) => {
  expect(fallen(await moved(more, slice))).toEqual(rules)
})

test('without a host that sees it only the system can say where it comes from, and the plan says so', async () => {
  const plan = await moved({}, { mappings: [] })
  expect(plan.steps.map(({ name }) => name)).toEqual(['move'])
  expect(plan.proof).toContain('no host sees it')
})

test('several writers are warned of, one is not, and hosts without an initiator do not write', async () => {
  const other = { id: id(40), name: 'catalogue', revision: 1 }
  const map = { volumeId: volume.id, hostGroupId: other.id }
  const slice = (count: number) => ({
    hostGroups: [group, other],
    hosts: [
      ...estate.hosts,
      host(41, 'one', { hostGroupId: other.id }),
      host(42, 'two', { hostGroupId: other.id, initiators: count === 2 ? ['iqn.2019-04.example:two'] : [] }),
    ],
    mappings: [],
  })
  expect(warned(await planned('map-volume', map, slice(1)))).not.toContain('one-writer')
  expect(warned(await planned('map-volume', map, slice(2)))).toContain('one-writer')
})

test('a volume in holding is erased before its time by whoever names it, and one in use never', async () => {
  const held = { ...volume, state: 'holding' as const, holdingUntil: '2026-05-09T00:00:00Z' }
  const erase = (confirmedName: string, volumes = [held]) =>
    planned('delete-held-volume', { volumeId: volume.id, confirmedName }, { volumes, mappings: [] })
  expect(fallen(await erase('dat'))).toEqual(['holding-over'])
  const plan = await erase('data')
  expect([fallen(plan), warned(plan), plan.title]).toEqual([[], ['early'], 'Erase data before its holding is over'])
  const inUse = { ...volume, state: 'in use' as const, holdingUntil: null }
  expect(
    fallen(await planned('delete-held-volume', { volumeId: volume.id, confirmedName: 'data' }, { volumes: [inUse] })),
  ).toEqual(['holding-over'])
})

test('expanding grows the file system on the hosts that see it, unless it is to be left', async () => {
  const steps = async (more: object, slice: Partial<Estate> = {}) =>
    (await planned('expand-volume', { volumeId: volume.id, size: '3 TiB', ...more }, slice)).steps.map(
      ({ name }) => name,
    )
  expect(await steps({})).toEqual(['enlarge', 'grow'])
  expect(await steps({ leavesFileSystem: true })).toEqual(['enlarge'])
  expect(await steps({}, { mappings: [] })).toEqual(['enlarge'])
  const left = await planned('expand-volume', { volumeId: volume.id, size: '3 TiB', leavesFileSystem: true })
  expect(warned(left)).toContain('file-system')
})

test('a group is formed of volumes of one system that are in no other', async () => {
  const second = sampleVolume({ id: id(50), name: 'log', poolId: id(2) })
  const form = (volumeIds: string[], slice: Partial<Estate>) =>
    planned('form-consistency-group', { volumeIds, name: 'ledger' }, slice)
  const both = [volume.id, second.id]
  expect(fallen(await form(both, { volumes: [volume, second] }))).toEqual([])
  expect(fallen(await form(both, { volumes: [volume, { ...second, systemId: id(77) }] }))).toEqual(['one-system'])
  expect(fallen(await form(both, { volumes: [volume, { ...second, consistencyGroupId: id(60) }] }))).toEqual([
    'in-no-other',
  ])
  expect(fallen(await form(both, { volumes: [volume] }))).toEqual(['volumes'])
  const taken = { id: id(61), systemId: system.id, locator: '/g', name: 'ledger', volumeCount: 2, revision: 1 }
  expect(fallen(await form(both, { volumes: [volume, second], consistencyGroups: [taken] }))).toEqual(['name-free'])
})

const near = sampleSystem({ revision: 1, name: 'heron', partners: ['TT-2'] })
const far = sampleSystem({ id: id(70), name: 'curlew', serial: 'TT-2', revision: 1 })
const farPool = pool(71, 'curlew-fast', { systemId: far.id })
const acrossTo = (poolId: string, slice: Partial<Estate> = {}) =>
  planned(
    'move-to-system',
    { volumeId: volume.id, poolId, ratePercent: 30 },
    { systems: [near, far], pools: [pool(2, 'fast'), farPool], ...slice },
  )

test('to another system it is mirrored, shown there, compared, switched, and what it was is held', async () => {
  const plan = await acrossTo(farPool.id)
  expect([isReady(plan), plan.title, fallen(plan)]).toEqual([true, 'Move data to curlew', []])
  expect(plan.steps.map(({ name }) => name)).toEqual([
    ...['mirror', 'show', 'take', 'compare', 'switch', 'leave', 'part', 'hold'],
  ])
  expect(plan.claims).toEqual([volume.id, farPool.id])
  const unseen = await acrossTo(farPool.id, { mappings: [] })
  expect(unseen.steps.map(({ name }) => name)).toEqual(['mirror', 'switch', 'part', 'hold'])
  expect(unseen.proof).toContain('no host sees it')
})

test.each([
  ['no pool', '', {}, ['pool']],
  ['a pool of its own system', id(2), {}, ['pool']],
  ['a system with which its own is not paired', farPool.id, { systems: [system, far] }, ['pool']],
  [
    'a system that does not answer',
    farPool.id,
    { systems: [near, { ...far, reach: 'not answering' as const }] },
    ['system-answers'],
  ],
  ['too little room', farPool.id, { pools: [pool(2, 'fast'), { ...farPool, writtenBytes: 10n * tebibyte }] }, ['fits']],
  ['a host without an agent', farPool.id, { hosts: [host(4, 'register-1', { agentAddress: null })] }, ['hosts']],
  ['a group of which nobody is known', farPool.id, { hostGroups: [] }, ['hosts']],
  [
    'somebody in the group of whom nothing is known',
    farPool.id,
    { systems: [{ ...near, accessGroups: [{ name: group.name, initiators: ['iqn.2019-04.example:who'] }] }, far] },
    ['strangers'],
  ],
  ['a consistency group', farPool.id, { volumes: [{ ...volume, consistencyGroupId: id(30) }] }, ['no-group']],
  ['a clone', farPool.id, { volumes: [{ ...volume, cloneOfId: id(31) }] }, ['alone']],
])('a move to another system is barred by %s', async (_what, poolId, slice, rules) => {
  expect(fallen(await acrossTo(poolId, slice))).toEqual(rules)
})

test('a broken mirror is filled again where both systems answer, its end is known, and what is more has room', async () => {
  const ends = (more: object = {}, state: 'broken' | 'alike' | 'filling' = 'broken') => {
    const mirror = { role: 'source' as const, state, partner: far.serial }
    return {
      systems: [near, { ...far, ...more }],
      pools: [pool(2, 'fast'), farPool],
      volumes: [
        { ...volume, mirror },
        sampleVolume({
          id: id(33),
          systemId: far.id,
          poolId: farPool.id,
          naa: volume.naa,
          writtenBytes: tebibyte / 2n,
        }),
      ],
    } satisfies Partial<Estate>
  }
  const refilled = (slice: Partial<Estate>) => planned('refill-mirror', { volumeId: volume.id, ratePercent: 30 }, slice)
  const plan = await refilled(ends())
  expect([isReady(plan), plan.title, plan.steps.length]).toEqual([true, 'Fill the mirror of data again', 1])
  // All of it is read over, a tebibyte, by a third of what twenty drives can.
  expect(plan.forecast.p50Seconds).toBeGreaterThan(100)
  expect(fallen(await refilled(ends({ reach: 'not answering' })))).toEqual(['system-answers'])
  expect(fallen(await refilled(ends({}, 'alike')))).toEqual(['broken'])
  expect(fallen(await refilled(ends({}, 'filling')))).toEqual(['not-filling'])
  expect(fallen(await refilled({ ...ends(), systems: [near] }))).toEqual(['mirrored'])
  const full = { ...farPool, state: 'failed' as const, writtenBytes: 10n * tebibyte }
  expect(fallen(await refilled({ ...ends(), pools: [pool(2, 'fast'), full] }))).toEqual(['pool', 'fits'])
  expect(fallen(await refilled({}))).toEqual(['mirrored'])
})
