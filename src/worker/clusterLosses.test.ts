import { those, within } from '@/core/estate'
import { pieceWorks, standingFindings } from '@/records/queries'
import { formed } from './testing/formed'
import { networkIntent } from './testing/networkIntent'
import { workbench } from './testing/workbench'

let bench: Awaited<ReturnType<typeof workbench>>
let systemId = ''
let poolId = ''
beforeAll(async () => {
  bench = await workbench(3600)
  ;({ systemId, poolId } = await formed(bench))
})
afterAll(() => bench.close())

const row = () => bench.estate(within(systemId))
const findings = async () =>
  (await standingFindings({ database: bench.database }, systemId)).map(each => each.finding.check)

const pattern = { naa: '', sums: [] as string[] }
const offsets = [0n, 7n * 1_048_576n, 512n * 1_048_576n, 3n * 1024n ** 3n]
async function agentOf(name: string) {
  const { hostAgent } = await import('@/connectors/host')
  return hostAgent(`http://127.0.0.1:${bench.fleet.ports.hosts[name]}`, new AbortController().signal)
}
const readsRight = async () => {
  const agent = await agentOf('scanner-gate')
  const now = await Promise.all(offsets.map(offset => agent.read(pattern.naa, offset, 3_000_000)))
  expect(now).toEqual(pattern.sums)
}

test('a volume on it is provisioned to a host, proven and written', async () => {
  await bench.carriedOut('register-host', {
    agentAddress: `http://127.0.0.1:${bench.fleet.ports.hosts['scanner-gate']}`,
    groupName: 'ct-scans',
  })
  await bench.carriedOut('register-host', {
    agentAddress: `http://127.0.0.1:${bench.fleet.ports.hosts['desk-1']}`,
    groupName: 'reading-room',
  })
  const group = (await bench.estate()).hostGroups.find(each => each.name === 'ct-scans')
  const change = await bench.carriedOut('provision-volume', {
    name: 'ct-scans-kiln-01',
    purpose: 'kiln',
    size: '4 TiB',
    poolId,
    isThin: true,
    hostGroupId: group?.id,
  })
  expect(change).toMatchObject({ state: 'proven', refusal: null })
  const { volumes } = await bench.estate([those('volumes', 'poolId', poolId)])
  pattern.naa = volumes[0]?.naa ?? ''
  const agent = await agentOf('scanner-gate')
  for (const offset of offsets) pattern.sums.push(await agent.write(pattern.naa, offset, 3_000_000, `seed ${offset}`))
  await readsRight()
})

test('a drive and then a node are lost: every byte reads right, and the rebuild is forecast and compared', async () => {
  const array = bench.fleet.row.array
  const volume = array.all('volumes')[0]
  if (volume !== undefined)
    array.store.commit([array.entry('volumes', { ...volume, workloadBytes: `${40n * 10n ** 12n}` })])
  bench.fleet.pools.faults.fail('godwit-2', 3)
  await readsRight()
  await bench.until(async () => (await findings()).includes('drive-failed'), 'the drive is found failed')
  await bench.until(
    async () => (await pieceWorks({ database: bench.database }, poolId)).some(work => work.state === 'done'),
    'its pieces are made anew',
  )
  const [work] = await pieceWorks({ database: bench.database }, poolId)
  const took = (Date.parse(work?.endedEstateAt ?? '') - Date.parse(work?.startedEstateAt ?? '')) / 1000
  // Both times are the cluster's own, so how seldom it was looked at here does not show in them.
  expect(took / (work?.p50Seconds ?? 1)).toBeGreaterThan(0.6)
  expect(took / (work?.p50Seconds ?? 1)).toBeLessThan(1.6)
  await readsRight()
  bench.fleet.row.setPower('godwit-4', false)
  await readsRight()
  await bench.until(async () => (await findings()).includes('node-silent'), 'the node is found silent')
  const hurt = await standingFindings({ database: bench.database }, systemId)
  const pool = hurt.find(each => each.finding.check === 'pool-hurt')
  if (pool !== undefined) expect(pool.finding.explainedBy.some(cause => cause.startsWith('node-silent/'))).toBe(true)
  await bench.until(
    async () =>
      (await pieceWorks({ database: bench.database }, poolId)).filter(each => each.state === 'done').length >= 2,
    'the pieces of the node are made anew',
  )
  await readsRight()
  bench.fleet.row.setPower('godwit-4', true)
  bench.fleet.pools.faults.nodeIsBack('godwit-4')
  await readsRight()
})

test('one loss too many says which volume has lost what, and refuses instead of answering wrong bytes', async () => {
  await bench.until(
    async () => (await row()).pools.find(each => each.id === poolId)?.state === 'fine',
    'the pool is whole',
  )
  bench.fleet.row.setPower('godwit-1', false)
  bench.fleet.row.setPower('godwit-3', false)
  const agent = await agentOf('scanner-gate')
  await expect(agent.read(pattern.naa, offsets[0] ?? 0n, 3_000_000)).rejects.toThrow(/pieces of that stripe are left/)
  await bench.until(async () => (await findings()).includes('data-lost'), 'the loss is said')
  const lost = (await bench.estate([those('volumes', 'poolId', poolId)])).volumes[0]?.lostBytes ?? 0n
  expect(lost).toBeGreaterThan(0n)
  for (const name of ['godwit-1', 'godwit-3']) {
    bench.fleet.row.setPower(name, true)
    bench.fleet.pools.faults.nodeIsBack(name)
  }
  await readsRight()
  await bench.until(async () => !(await findings()).includes('data-lost'), 'nothing is lost any more')
})

test('a fifth node joins with its banks, and leaves again', async () => {
  expect(
    await bench.carriedOut('set-storage-network', await networkIntent(bench, systemId, ['godwit-5'])),
  ).toMatchObject({
    state: 'proven',
  })
  const { nodes, drives } = await row()
  const fifth = nodes.find(node => node.name === 'godwit-5')
  const driveIds = drives.filter(drive => drive.nodeId === fifth?.id && !drive.isBoot).map(drive => drive.id)
  await bench.until(
    async () => (await row()).pools.find(each => each.id === poolId)?.state === 'fine',
    'the pool is whole',
  )
  const before = (await row()).pools.find(each => each.id === poolId)?.usableBytes ?? 0n
  const grown = await bench.carriedOut('grow-cluster', { systemId, poolId, driveIds, roles: {}, ratePercent: 50 })
  expect(grown).toMatchObject({ state: 'proven', refusal: null })
  expect((await row()).pools.find(each => each.id === poolId)?.usableBytes).toBeGreaterThan(before)
  await readsRight()
  const shrunk = await bench.carriedOut('shrink-cluster', { systemId, poolId, driveIds, ratePercent: 100 })
  expect(shrunk).toMatchObject({ state: 'proven', refusal: null })
  expect((await row()).drives.filter(drive => drive.nodeId === fifth?.id && drive.poolId !== null)).toEqual([])
  await readsRight()
})

test('taking out too much is refused with the rule that binds', async () => {
  const { drives, nodes } = await row()
  const two = nodes.filter(node => ['godwit-1', 'godwit-2'].includes(node.name)).map(node => node.id)
  const driveIds = drives
    .filter(drive => drive.poolId === poolId && two.includes(drive.nodeId ?? ''))
    .map(drive => drive.id)
  const { plan } = await bench.drafted('shrink-cluster', { systemId, poolId, driveIds, ratePercent: 50 })
  expect(plan.checks.find(({ rule }) => rule === 'too-few-domains')).toMatchObject({
    holds: false,
    why: expect.stringContaining('Only 2 failure domains would be left'),
  })
})
