import type { Estate } from '@/core/estate'
import {
  sampleDrive,
  sampleId,
  sampleNode,
  sampleNodePort,
  samplePool,
  sampleSwitchPort,
  sampleSystem,
} from '@/core/estate/testing/samples'
import { isReady } from '@/core/plan'
import {
  check,
  drivesOf,
  numbers,
  planned,
  poolId,
  probed,
  sampleRow as estate,
  systemId,
  terabyte,
} from '../testing/sampleRow'

const form = (more: object = {}, from = estate()) =>
  planned(
    'form-cluster',
    {
      systemId,
      name: 'kiln',
      driveIds: from.drives.map(drive => drive.id),
      roles: {},
      domain: 'node',
      scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
      keepsRebuildReserve: true,
      snapshotSharePercent: 10,
      ...more,
    },
    from,
  )

test('a sound row forms a cluster: one bank a node, every drive claimed, the restart service off and on again', () => {
  const plan = form()
  expect(plan.checks.filter(each => !each.holds).map(each => each.why)).toEqual([])
  expect(isReady(plan)).toBe(true)
  expect(plan.steps.map(step => step.name)).toEqual(['probe', 'pause-restart', 'form', 'lay-out', 'resume-restart'])
  expect(plan.sketch).toMatchObject({ of: 'cluster', tolerance: { readable: 1, writable: 1 } })
  expect(plan.sketch?.of === 'cluster' && plan.sketch.banks.map(bank => bank.capacityDriveIds.length)).toEqual([
    2, 2, 2, 2,
  ])
  expect(plan.claims).toEqual(
    expect.arrayContaining([...estate().drives.map(drive => drive.id), `cluster:${systemId}`]),
  )
})

test('what the ladder leaves is what the effects promise', () => {
  const plan = form()
  const rungs = plan.sketch?.of === 'cluster' ? plan.sketch.ladder : []
  expect(rungs.at(-1)?.bytes).toBe(plan.effects.find(effect => effect.figure === 'freeBytes')?.after)
})

test.each<[string, Partial<Estate>, string, string]>([
  ['paths that were never probed', { pathProbes: [] }, 'paths', 'have been probed yet'],
  [
    'a path that does not pass',
    { pathProbes: [{ systemId, at: '', wantedMtu: 9000, answers: probed(null) }] },
    'paths',
    'does not reach',
  ],
  [
    'unlike firmware',
    { nodes: numbers.map(number => sampleNode(number, { firmware: number === 2 ? '2.3' : '2.4' })) },
    'firmware-alike',
    '2.4 and 2.3',
  ],
  [
    'a clock that is ahead',
    { nodes: numbers.map(number => sampleNode(number, { clockOffsetSeconds: number === 3 ? 360 : 0 })) },
    'clocks',
    'godwit-3 is 360 s ahead',
  ],
  [
    'a node that is silent',
    { nodes: numbers.map(number => sampleNode(number, { state: number === 4 ? 'not answering' : 'fine' })) },
    'nodes-answer',
    'godwit-4 does not answer',
  ],
  [
    'a node without a storage network',
    { nodePorts: numbers.map(number => sampleNodePort(number, number === 1 ? { storage: null } : {})) },
    'network-set',
    'godwit-1',
  ],
  [
    'a drive with an earlier use',
    {
      drives: numbers.flatMap(number =>
        drivesOf(number, bay =>
          number === 1 && bay === 1 ? { leftOver: { system: 'plover', lastUsedAt: null, partitions: ['p'] } } : {},
        ),
      ),
    },
    'drives-clean',
    'from plover',
  ],
  [
    'capacity without a cache drive',
    { drives: numbers.flatMap(number => drivesOf(number).slice(number === 1 ? 1 : 0)) },
    'banks',
    'no cache drive to put it behind',
  ],
  [
    'more drives than a bank takes',
    { nodes: numbers.map(number => sampleNode(number, { mostCapacityDrives: 1 })) },
    'banks',
    'at most 1 capacity drives a bank',
  ],
  [
    'a cluster that is there already',
    { systems: [sampleSystem({ name: 'godwit', clusterName: 'old' })] },
    'no-cluster-yet',
    'form old already',
  ],
])('forming is barred by %s', (_, more, rule, why) => {
  const plan = form({}, estate(more))
  expect(check(plan, rule)).toMatchObject({ holds: false, level: 'must', why: expect.stringContaining(why) })
  expect(isReady(plan)).toBe(false)
})

test('racks as domains need as many racks as pieces', () =>
  expect(check(form({ domain: 'rack' }), 'layout')).toMatchObject({
    holds: false,
    why: '2+1 takes 3 racks, a piece on each; the choice has 1.',
  }))

test('a role that is set by hand counts, and what it breaks is said', () =>
  expect(check(form({ roles: { [sampleDrive(10).id]: 'capacity' } }), 'banks')).toMatchObject({ holds: false }))

const pool = samplePool({
  id: poolId,
  scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
  failureDomain: 'node',
  writtenBytes: terabyte,
  provisionedBytes: terabyte,
})
const grown = (inPool: readonly number[], more: Partial<Estate> = {}) =>
  estate({
    pools: [pool],
    drives: numbers.flatMap(number =>
      drivesOf(number, bay => (inPool.includes(number) ? { poolId, bank: 1, role: bay === 9 ? 'cache' : 'data' } : {})),
    ),
    ...more,
  })
const idsOf = (node: number) => drivesOf(node).map(drive => drive.id)

test('a node that joins moves its share of what is stored, and no more', () => {
  const plan = planned(
    'grow-cluster',
    { systemId, poolId, driveIds: idsOf(4), roles: {}, ratePercent: 50 },
    grown([1, 2, 3]),
  )
  expect(isReady(plan)).toBe(true)
  expect(plan.steps.map(step => step.name)).toEqual(['join', 'add', 'move'])
  // A terabyte stored as 2+1 is one and a half; the fourth of four equal nodes takes a quarter of it.
  expect(plan.effects.find(effect => effect.figure === 'movedBytes')?.after).toBe(`${(terabyte * 3n) / 8n}`)
})

test('half the rate takes twice the time to move', () => {
  const at = (ratePercent: number) =>
    planned(
      'grow-cluster',
      { systemId, poolId, driveIds: idsOf(4), roles: {}, ratePercent },
      grown([1, 2, 3]),
    ).steps.at(-1)?.forecast.baseSeconds ?? 0
  expect((at(25) - 3) / (at(50) - 3)).toBeCloseTo(2)
})

test('a pool that is hurt neither grows nor shrinks', () => {
  const hurt = grown([1, 2, 3], { pools: [{ ...pool, state: 'degraded' }] })
  for (const [kind, node] of [
    ['grow-cluster', 4],
    ['shrink-cluster', 3],
  ] as const)
    expect(
      check(planned(kind, { systemId, poolId, driveIds: idsOf(node), roles: {}, ratePercent: 50 }, hurt), 'pool-whole'),
    ).toMatchObject({ holds: false })
})

test('a cache drive that leaves takes its bank and, with the last of them, its node', () => {
  const plan = planned('shrink-cluster', { systemId, poolId, driveIds: [idsOf(4)[0]], ratePercent: 50 }, grown(numbers))
  expect(plan.title).toBe('Take 2 drives and godwit-4 out of bulk')
  expect(plan.steps.map(step => step.name)).toEqual(['empty', 'part'])
  expect(isReady(plan)).toBe(true)
})

test.each([
  ['fewer domains than pieces', [3, 4], pool, 'too-few-domains', 'Only 2 failure domains'],
  ['less room than is written', [4], { ...pool, writtenBytes: 17n * terabyte }, 'capacity', 'is written, and only'],
])('taking out is barred by %s', (_, nodes, own, rule, why) => {
  const plan = planned(
    'shrink-cluster',
    { systemId, poolId, driveIds: nodes.flatMap(idsOf), ratePercent: 50 },
    grown(numbers, { pools: [own] }),
  )
  expect(check(plan, rule)).toMatchObject({ holds: false, why: expect.stringContaining(why) })
})

const networkIntent = (more: object = {}) => ({
  systemId,
  nodes: numbers.map(number => ({
    nodeId: sampleId(number),
    portId: sampleId(number + 50),
    address: `fd00:20::1${number}/64`,
  })),
  origin: 'static',
  vlan: 30,
  mtu: 9000,
  ...more,
})

test('addresses of IPv6 are taken like others', () =>
  expect(isReady(planned('set-storage-network', networkIntent()))).toBe(true))

test.each([
  ['an MTU that no port has', { mtu: 12_000 }, {}, 'mtu', 'An MTU is 1280 to 9216'],
  ['a VLAN that is none', { vlan: 5000 }, {}, 'vlan', 'A VLAN is 1 to 4094'],
  [
    'a far port that is too small',
    {},
    { switchPorts: numbers.map(number => sampleSwitchPort(number, { mtu: 1500 })) },
    'far-ends',
    'lets only 1500 bytes through',
  ],
  ['a far port without the VLAN', { vlan: 40 }, {}, 'far-ends', 'does not carry VLAN 40'],
  [
    'a port that is shared',
    {},
    { nodePorts: numbers.map(number => sampleNodePort(number, { traffic: ['hosts'] })) },
    'own-port',
    'it gets 50% of them',
  ],
  [
    'a port that is down',
    {},
    { nodePorts: numbers.map(number => sampleNodePort(number, { isUp: false })) },
    'ports',
    '4 of the chosen ports are down',
  ],
])('setting the network tells %s', (_, intent, more, rule, why) =>
  expect(check(planned('set-storage-network', networkIntent(intent), estate(more)), rule)).toMatchObject({
    holds: false,
    why: expect.stringContaining(why),
  }),
)

test('the switch port behind a node keeps the VLAN that the node uses, or it is said', () => {
  const plan = planned('set-switch-port', { systemId, switchPortId: sampleId(71), mtu: 9216, vlans: [1] })
  expect(check(plan, 'node-kept')).toMatchObject({ holds: false, why: expect.stringContaining('VLAN 30') })
})

test('a cluster with a pool is not dissolved, nor one whose name is mistyped', () => {
  const from = estate({ systems: [sampleSystem({ clusterName: 'kiln' })], pools: [pool] })
  const plan = planned('dissolve-cluster', { systemId, typedName: 'klin' }, from)
  expect(['no-pools', 'typed-name'].map(rule => check(plan, rule)?.holds)).toEqual([false, false])
})

test('a finding that nobody has signed for bars forming; a signed one, a note, and one of another node do not', () => {
  const storage = { ...sampleNodePort(1).storage, family: 'IPv4', origin: 'leased', isReserved: false } as const
  const leasedAt = (number: number) =>
    [1, 2, 3, 4, 5].map(each =>
      sampleNodePort(
        each,
        each === number ? { storage: { address: null, prefixLength: 24, vlan: 30, ...storage } } : {},
      ),
    )
  const row = (number: number, more: Partial<Estate> = {}) =>
    estate({ nodes: [1, 2, 3, 4, 5].map(each => sampleNode(each)), nodePorts: leasedAt(number), ...more })
  const own = check(form({}, row(2)), 'findings')
  expect(own).toMatchObject({
    holds: false,
    level: 'must',
    why: 'godwit-2 has a leased address without a reservation.',
    href: expect.stringContaining('draft=set-storage-network'),
  })
  const exception = {
    id: sampleId(500),
    findingKey: `lease/${sampleId(2)}`,
    gravity: null,
    reason: 'r',
    signedBy: 'keeper',
    signedAt: '2026-05-01T00:00:00.000Z',
    until: '2026-05-05T00:00:00.000Z',
  }
  expect(check(form({}, row(2, { exceptions: [exception] })), 'findings')?.holds).toBe(true)
  const over = { ...exception, until: '2026-05-04T09:00:00.000Z' }
  expect(check(form({}, row(2, { exceptions: [over] })), 'findings')?.holds).toBe(false)
  expect(check(form({}, row(5)), 'findings')?.holds).toBe(true)
})
