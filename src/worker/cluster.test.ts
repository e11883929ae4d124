import { within } from '@/core/estate'
import type { Plan } from '@/core/plan'
import { resume } from '@/drafting'
import { evidenceOf, journalOf } from '@/records/changes'
import { standingFindings } from '@/records/queries'
import { networkIntent } from './testing/networkIntent'
import { tester, workbench } from './testing/workbench'

type Bench = Awaited<ReturnType<typeof workbench>>
let bench: Bench
let systemId = ''
let poolId = ''
const rate = 3600
let networkChangeId = ''
beforeAll(async () => (bench = await workbench(rate)))
afterAll(() => bench.close())

const row = () => bench.estate(within(systemId))
const check = (plan: Plan, rule: string) => plan.checks.find(each => each.rule === rule)
const findings = async () =>
  (await standingFindings({ database: bench.database }, systemId)).map(each => each.finding.check)
const nodeNames = ['godwit-1', 'godwit-2', 'godwit-3', 'godwit-4']

async function clusterIntent(more: object = {}, names: readonly string[] = nodeNames) {
  const { nodes, drives } = await row()
  const ids = nodes.filter(node => names.includes(node.name)).map(node => node.id)
  return {
    systemId,
    name: 'kiln',
    driveIds: drives.filter(drive => ids.includes(drive.nodeId ?? '') && !drive.isBoot).map(drive => drive.id),
    roles: {},
    domain: 'node',
    scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
    keepsRebuildReserve: true,
    snapshotSharePercent: 10,
    ...more,
  }
}

test('a row of nodes is registered, with its nodes, switches, drives and what is left over on them', async () => {
  const probeId = await bench.probed('godwit')
  const change = await bench.carriedOut('register-system', {
    probeId,
    name: 'godwit',
    siteId: '',
    isPlainHttpAccepted: true,
    acceptedFingerprint: '',
  })
  expect(change).toMatchObject({ state: 'proven', refusal: null })
  systemId = (await bench.estate()).systems.find(system => system.name === 'godwit')?.id ?? ''
  const found = await row()
  expect([
    found.nodes.length,
    found.nodePorts.length,
    found.switches.length,
    found.switchPorts.length,
    found.drives.length,
  ]).toEqual([5, 10, 2, 12, 55])
  expect(found.nodePorts.every(port => port.switchPortId !== null)).toBe(true)
  expect(found.switchPorts.filter(port => port.peerPortId !== null)).toHaveLength(2)
  expect(found.drives.filter(drive => drive.isBoot)).toHaveLength(5)
  expect(found.drives.find(drive => drive.leftOver !== null)).toMatchObject({
    bay: 5,
    leftOver: { system: expect.stringContaining('plover') },
  })
  expect(await findings()).toEqual(['left-over'])
})

test('a cluster cannot be drafted before its network; the check offers to set it', async () => {
  const { plan } = await bench.drafted('form-cluster', await clusterIntent())
  expect(check(plan, 'network-set')).toMatchObject({
    holds: false,
    why: expect.stringContaining('godwit-1, godwit-2'),
    href: expect.stringContaining('draft=set-storage-network'),
  })
  expect(check(plan, 'drives-clean')).toMatchObject({
    holds: false,
    why: expect.stringContaining('plover'),
    href: expect.stringContaining('draft=erase-drive'),
  })
})

test('addresses that are twice, unreadable or in two subnets are refused; the following ones are suggested', async () => {
  const intent = await networkIntent(bench, systemId, nodeNames)
  const draftOf = async (...addresses: string[]) =>
    (
      await bench.drafted('set-storage-network', {
        ...intent,
        nodes: intent.nodes.map((each, index) => ({ ...each, address: addresses[index] ?? '' })),
      })
    ).plan
  const twice = await draftOf('10.20.30.11/24', '10.20.30.11/24', '10.20.30.13/24', '10.20.30.14/24')
  expect(check(twice, 'addresses-distinct')).toMatchObject({ holds: false, why: 'Two nodes would have 10.20.30.11.' })
  expect(twice.suggestions).toMatchObject({ [intent.nodes[3]?.nodeId ?? '']: '10.20.30.14/24' })
  expect(check(await draftOf('10.20.30.11/24', 'x'), 'addresses')).toMatchObject({
    holds: false,
    why: expect.stringContaining('"x"'),
  })
  expect(check(await draftOf('10.20.30.11/24', '10.20.31.12/24'), 'one-subnet')).toMatchObject({ holds: false })
  expect(
    check((await bench.drafted('set-storage-network', { ...intent, origin: 'leased' })).plan, 'lease'),
  ).toMatchObject({ holds: false, level: 'warn' })
})

test('the network is set and probed; the port that was forgotten is named, with the change that mends it', async () => {
  const change = await bench.carriedOut('set-storage-network', await networkIntent(bench, systemId, nodeNames))
  expect(change).toMatchObject({
    state: 'unproven',
    refusal: { code: 'worker.not-proven', why: expect.stringContaining('Full frames pass between all pairs') },
    stands: expect.stringContaining('All steps were carried out'),
  })
  networkChangeId = change.id
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.at(-1)).toMatchObject({ holds: false, measured: { pairs: '12', passing: '6' } })
  expect((await row()).nodes.every(node => node.isRestartServiceOn && node.state === 'fine')).toBe(true)
  await bench.until(async () => (await findings()).includes('paths'), 'the failing paths are found')
  const all = await standingFindings({ database: bench.database }, systemId)
  const cause = all.find(each => each.finding.check === 'mtu')?.finding
  expect(cause).toMatchObject({
    title: expect.stringContaining('row switch 1 port 3 has MTU 1500'),
    draft: { kind: 'set-switch-port' },
  })
  expect(all.find(each => each.finding.check === 'paths')?.finding.explainedBy).toContain(cause?.key)
  const { plan } = await bench.drafted('form-cluster', await clusterIntent())
  expect(check(plan, 'paths')).toMatchObject({
    holds: false,
    why: expect.stringContaining('row switch 1 port 3'),
    href: expect.stringContaining('set-switch-port'),
  })
  const names = (await row()).nameAnswers
  expect(names.filter(each => each.kind === 'reverse').map(each => each.answers[0])).toContain(
    'godwit-2.kilnhill.marrowfield.example',
  )
})

test('the forgotten port is mended from here, and the finding clears on the new probe', async () => {
  const { switchPorts } = await row()
  const port = switchPorts.find(each => each.mtu === 1500)
  const change = await bench.carriedOut('set-switch-port', {
    systemId,
    switchPortId: port?.id,
    mtu: 9216,
    vlans: port?.vlans ?? [],
  })
  expect(change.state).toBe('proven')
  expect((await evidenceOf({ database: bench.database }, change.id)).at(-1)).toMatchObject({
    measured: { pairs: '6', passing: '6' },
  })
  await bench.until(async () => !(await findings()).includes('paths'), 'the paths pass')
  // What was not proven because of it is proven again, by its own proof and nothing else.
  await resume(bench.database, networkChangeId, false, tester)
  expect(await bench.ended(networkChangeId)).toMatchObject({ state: 'proven', refusal: null })
  const evidence = await evidenceOf({ database: bench.database }, networkChangeId)
  expect(evidence.at(-1)).toMatchObject({ attempt: 2, holds: true, measured: { pairs: '12', passing: '12' } })
})

test('erasing asks for the last four characters, refuses boot drives, and proves emptiness by reading', async () => {
  const { drives } = await row()
  const foreign = drives.find(drive => drive.leftOver !== null)
  const boot = drives.find(drive => drive.isBoot)
  const intent = { systemId, driveId: foreign?.id, lastFour: 'XXXX', isWhole: false }
  expect(check((await bench.drafted('erase-drive', intent)).plan, 'last-four')).toMatchObject({ holds: false })
  expect(
    check(
      (await bench.drafted('erase-drive', { ...intent, driveId: boot?.id, lastFour: boot?.serial.slice(-4) })).plan,
      'no-boot',
    ),
  ).toMatchObject({ holds: false, why: expect.stringContaining('starts from it') })
  const change = await bench.carriedOut('erase-drive', { ...intent, lastFour: foreign?.serial.slice(-4).toLowerCase() })
  expect(change.state).toBe('proven')
  expect(
    (await evidenceOf({ database: bench.database }, change.id)).map(each => each.measured['nonZeroBytes']),
  ).toEqual(['0', '0', '0', '0', '0', '0'])
  await bench.until(async () => (await findings()).length === 0, 'nothing is found any more')
})

test('a drive pulled while it is erased fails the change with that reason', async () => {
  const drive = (await row()).drives.find(each => each.bay === 8 && each.name !== '')
  const node = (await row()).nodes.find(each => each.id === drive?.nodeId)?.name ?? ''
  // Every sector takes hours: by this pace the drive is pulled long before the end.
  bench.fleet.clock.setRate(60)
  const id = await bench.begun('erase-drive', {
    systemId,
    driveId: drive?.id,
    lastFour: drive?.serial.slice(-4),
    isWhole: true,
  })
  await bench.until(
    async () => (await journalOf({ database: bench.database }, id)).some(entry => entry.event === 'begun'),
    'it has begun',
  )
  await bench.until(
    async () =>
      bench.fleet.row.array.all('tasks').some(task => task.work === 'erase-drive' && task.state === 'Running'),
    'it erases',
  )
  bench.fleet.pools.faults.setPulled(node, 8, true)
  bench.fleet.clock.setRate(rate)
  expect(await bench.ended(id)).toMatchObject({
    state: 'failed',
    refusal: { code: 'change.task-failed', why: expect.stringContaining('no longer there') },
  })
  bench.fleet.pools.faults.setPulled(node, 8, false)
  await bench.until(async () => (await row()).drives.length === 55, 'the drive is back')
})

test('a light is switched on and off', async () => {
  const drive = (await row()).drives[3]
  expect(await bench.carriedOut('set-locate-light', { systemId, driveIds: [drive?.id], isOn: true })).toMatchObject({
    state: 'proven',
  })
  expect((await row()).drives.find(each => each.id === drive?.id)?.isLit).toBe(true)
})

test('a clock six minutes off bars the cluster, and is set from here', async () => {
  bench.fleet.row.skewClock('godwit-2', -360)
  await bench.until(async () => (await findings()).includes('clock-off'), 'the clock is found off')
  const { plan } = await bench.drafted('form-cluster', await clusterIntent())
  expect(check(plan, 'clocks')).toMatchObject({
    holds: false,
    // The least that is certain is told: what its reading took, 36 seconds by the fleet's clock for ten milliseconds, is not counted.
    why: expect.stringMatching(/^godwit-2 is (2\d\d|3[0-6]\d) s behind\.$/),
    href: expect.stringContaining('set-node-clock'),
  })
  const node = (await row()).nodes.find(each => each.name === 'godwit-2')
  expect(await bench.carriedOut('set-node-clock', { systemId, nodeId: node?.id })).toMatchObject({ state: 'proven' })
  await bench.until(async () => !(await findings()).includes('clock-off'), 'the clock is right')
})

test('too few nodes for the layout, a boot drive, and a node that is larger are told while drafting', async () => {
  const narrow = await bench.drafted(
    'form-cluster',
    await clusterIntent({ scheme: { kind: 'erasure', dataPieces: 4, parityPieces: 2 } }, nodeNames.slice(0, 3)),
  )
  expect(check(narrow.plan, 'layout')).toMatchObject({
    holds: false,
    why: '4+2 takes 6 nodes, a piece on each; the choice has 3.',
  })
  const intent = await clusterIntent()
  const boot = (await row()).drives.find(drive => drive.isBoot)
  expect(
    check(
      (await bench.drafted('form-cluster', { ...intent, driveIds: [...intent.driveIds, boot?.id] })).plan,
      'no-boot',
    ),
  ).toMatchObject({ holds: false })
  const { drives, nodes } = await row()
  const first = nodes.find(node => node.name === 'godwit-1')?.id
  const half = intent.driveIds.filter(id => {
    const drive = drives.find(each => each.id === id)
    return drive?.nodeId === first || drive?.media === 'SSD' || (drive?.bay ?? 0) <= 3
  })
  const lopsided = await bench.drafted('form-cluster', {
    ...intent,
    driveIds: half,
    scheme: { kind: 'erasure', dataPieces: 3, parityPieces: 1 },
  })
  expect(check(lopsided.plan, 'nothing-stranded')).toMatchObject({
    holds: false,
    why: expect.stringContaining('godwit-1 strands'),
  })
  expect(lopsided.plan.sketch).toMatchObject({
    of: 'cluster',
    lacking: { domainNames: expect.arrayContaining(['godwit-2']) },
  })
})

test('a node that dies while the cluster forms leaves nothing half formed', async () => {
  // By the wall's own pace joining takes half a minute: time enough to lose a node in the middle of it.
  bench.fleet.clock.setRate(1)
  const id = await bench.begun('form-cluster', await clusterIntent())
  await bench.until(async () => bench.fleet.row.all('clusters').length > 0, 'the nodes are joining')
  bench.fleet.row.setPower('godwit-4', false)
  bench.fleet.clock.setRate(rate)
  const change = await bench.ended(id)
  expect(change).toMatchObject({
    state: 'failed',
    refusal: { why: expect.stringContaining('godwit-4 does not answer') },
  })
  expect(change.stands).toContain('restart service of godwit-4')
  expect(bench.fleet.row.all('clusters')).toEqual([])
  expect(bench.fleet.row.array.all('pools')).toEqual([])
  bench.fleet.row.setPower('godwit-4', true)
  await bench.until(async () => (await row()).nodes.every(node => node.state === 'fine'), 'the node is back')
  const node = (await row()).nodes.find(each => each.name === 'godwit-4')
  await bench.carriedOut('set-restart-service', { systemId, nodeIds: [node?.id], isOn: true })
})

test('the cluster is formed by a worker that is restarted meanwhile, and is born healthy', async () => {
  const id = await bench.begun('form-cluster', await clusterIntent())
  await bench.until(async () => bench.fleet.row.all('clusters').length > 0, 'the nodes are joining')
  await bench.restartWorker()
  const change = await bench.ended(id)
  expect(change).toMatchObject({ state: 'proven', refusal: null })
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(entry => entry.holds)).toEqual([true, true, true, true, true, true])
  expect(evidence.at(-1)).toMatchObject({
    claim: expect.stringContaining('No finding of its nodes stands'),
    measured: { findings: '0' },
  })
  const found = await row()
  const pool = found.pools.find(each => each.systemId === systemId)
  poolId = pool?.id ?? ''
  expect(pool).toMatchObject({
    name: 'kiln-01',
    failureDomain: 'node',
    state: 'fine',
    scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
  })
  expect(found.drives.filter(drive => drive.poolId === poolId && drive.role === 'cache')).toHaveLength(8)
  expect(found.nodes.every(node => node.isRestartServiceOn)).toBe(true)
  const planned = change.plan.effects.find(effect => effect.figure === 'freeBytes')?.after
  expect(
    `${(pool?.usableBytes ?? 0n) - (pool?.metadataBytes ?? 0n) - (pool?.rebuildReserveBytes ?? 0n) - (pool?.snapshotReserveBytes ?? 0n)}`,
  ).toBe(planned)
  await bench.until(async () => (await findings()).length === 0, 'it is born without findings')
})
