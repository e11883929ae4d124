import { within } from '@/core/estate'
import { evidenceOf } from '@/records/changes'
import { standingFindings } from '@/records/queries'
import { workbench } from './testing/workbench'

let bench: Awaited<ReturnType<typeof workbench>>
let systemId = ''
beforeAll(async () => {
  bench = await workbench(3600)
  systemId = await bench.registered('godwit')
})
afterAll(() => bench.close())

const row = () => bench.estate(within(systemId))
const storage = async () => (await row()).nodePorts.flatMap(port => port.storage ?? [])
async function intent(more: object, addressOf: (number: number) => string = () => '', portName = 'port 1') {
  const { nodes, nodePorts } = await row()
  return {
    systemId,
    nodes: nodes.map((node, index) => ({
      nodeId: node.id,
      portId: nodePorts.find(port => port.nodeId === node.id && port.name === portName)?.id,
      address: addressOf(index + 1),
    })),
    origin: 'static',
    vlan: 30,
    mtu: 1500,
    ...more,
  }
}
const proofOf = async (id: string) => (await evidenceOf({ database: bench.database }, id)).at(-1)?.measured
const bare = {
  systemId: '',
  name: 'kiln',
  roles: {},
  domain: 'node',
  keepsRebuildReserve: true,
  snapshotSharePercent: 10,
}
const clusterChecks = async () => {
  const { drives } = await row()
  const { plan } = await bench.drafted('form-cluster', {
    ...bare,
    systemId,
    driveIds: drives.filter(drive => !drive.isBoot && drive.leftOver === null).map(drive => drive.id),
    scheme: { kind: 'copies', copies: 3 },
  })
  return (rule: string) => plan.checks.find(check => check.rule === rule)
}

test('a storage network of IPv6 addresses is set by hand, and every pair passes', async () => {
  const change = await bench.carriedOut('set-storage-network', await intent({}, number => `fd00:20:30::${number}a/64`))
  expect(change).toMatchObject({ state: 'proven', refusal: null })
  expect(await proofOf(change.id)).toMatchObject({ pairs: '20', passing: '20' })
  expect((await storage()).map(each => [each.family, each.address, each.prefixLength, each.origin])).toEqual(
    [1, 2, 3, 4, 5].map(number => ['IPv6', `fd00:20:30::${number}a`, 64, 'static']),
  )
})

test('an interface or a restart service that is set otherwise past every plan is found', async () => {
  const drifts = async () =>
    (await standingFindings({ database: bench.database }, systemId))
      .filter(({ finding }) => finding.check === 'drifted')
      .map(({ finding }) => finding.title)
  const { nodes } = await row()
  const [node] = nodes
  await bench.carriedOut('set-restart-service', { systemId, nodeIds: [node?.id], isOn: true })
  const { row: stood } = bench.fleet
  const ports = stood.all('nodePorts').filter(({ storage: own }) => own !== null)
  const [first] = ports
  if (first === undefined) throw new Error('Ports carry storage.')
  stood.array.store.commit([
    stood.entry('nodePorts', { ...first, mtu: 1400 }),
    ...stood.all('nodes').map(each => stood.entry('nodes', { ...each, isRestartServiceOn: false })),
  ])
  await bench.until(async () => (await drifts()).length === 2, 'both are found')
  expect((await drifts()).sort()).toEqual([
    expect.stringContaining('whether it restarts by itself'),
    expect.stringContaining('its MTU'),
  ])
  stood.array.store.commit(ports.map(port => stood.entry('nodePorts', port)))
  await bench.carriedOut('set-restart-service', { systemId, nodeIds: [node?.id], isOn: true })
  await bench.until(async () => (await drifts()).length === 0, 'they are cleared')
})

test('the same address written in two ways is one address', async () => {
  const twice = await intent(
    {},
    number =>
      (number < 3 ? ['fd00:20:30::1a/64', 'FD00:0020:30:0:0::1A/64'][number - 1] : `fd00:20:30::${number}a/64`) ?? '',
  )
  const { plan } = await bench.drafted('set-storage-network', twice)
  expect(plan.checks.find(check => check.rule === 'addresses-distinct')).toMatchObject({
    holds: false,
    why: 'Two nodes would have fd00:20:30::1a.',
  })
})

test.each([
  ['IPv4', /^10\.20\.30\.10\d$/, 24],
  ['IPv6', /^fd00:20:30::1:\d$/, 64],
])(
  'leased %s addresses are taken with a warning; who has no reservation is named where it counts',
  async (family, address, prefix) => {
    const wanted = await intent({ origin: 'leased', family })
    const { plan } = await bench.drafted('set-storage-network', wanted)
    expect(plan.checks.find(check => check.rule === 'lease')).toMatchObject({ holds: false, level: 'warn' })
    const change = await bench.carriedOut('set-storage-network', wanted)
    expect(change).toMatchObject({ state: 'proven', refusal: null })
    expect(await proofOf(change.id)).toMatchObject({ passing: '20' })
    const all = await storage()
    expect(all).toHaveLength(5)
    for (const each of all) {
      expect(each).toMatchObject({ family, origin: 'leased', prefixLength: prefix })
      expect(each.address).toMatch(address)
    }
    expect(all.filter(each => !each.isReserved)).toHaveLength(1)
    expect((await clusterChecks())('reserved')).toMatchObject({
      holds: false,
      level: 'warn',
      why: 'godwit-5 has an address that is leased without a reservation.',
    })
  },
)

test('a network that goes back to addresses by hand leases none any more', async () => {
  const change = await bench.carriedOut(
    'set-storage-network',
    await intent({ vlan: null }, number => `10.20.30.1${number}/24`),
  )
  expect(change).toMatchObject({ state: 'proven', refusal: null })
  expect(
    (await storage()).every(each => each.family === 'IPv4' && each.origin === 'static' && each.vlan === null),
  ).toBe(true)
  expect((await clusterChecks())('reserved')).toMatchObject({ holds: true })
})

test('a shared port says what storage gets of it; a wrong VLAN at the far end is named by the probe', async () => {
  const shared = await bench.drafted(
    'set-storage-network',
    await intent({}, number => `10.20.30.1${number}/24`, 'port 2'),
  )
  expect(shared.plan.checks.find(check => check.rule === 'own-port')).toMatchObject({
    holds: false,
    why: 'Storage shares ports with host access and management: when all are busy it gets 33% of them.',
  })
  const wanted = await intent({ vlan: 20 }, number => `10.20.30.1${number}/24`)
  const { plan } = await bench.drafted('set-storage-network', wanted)
  expect(plan.checks.find(check => check.rule === 'far-ends')).toMatchObject({
    holds: false,
    why: expect.stringContaining('row switch 1 port 1 does not carry VLAN 20.'),
    href: expect.stringContaining('draft=set-switch-port'),
  })
  const change = await bench.carriedOut('set-storage-network', wanted)
  expect(await proofOf(change.id)).toMatchObject({ passing: '0' })
  await bench.until(
    async () =>
      (await standingFindings({ database: bench.database }, systemId)).some(each =>
        each.finding.title.includes('VLAN 20'),
      ),
    'the wrong VLAN is found',
  )
  expect((await clusterChecks())('paths')).toMatchObject({ holds: false, why: expect.stringContaining('VLAN 20') })
})
