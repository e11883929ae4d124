import { one } from '@/core/estate'
import { evidenceOf } from '@/records/changes'
import { standingFindings } from '@/records/queries'
import { formed } from './testing/formed'
import { workbench } from './testing/workbench'

let bench: Awaited<ReturnType<typeof workbench>>
let systemId = ''
let shareId = ''
let hostId = ''
const server = 'files.kilnhill.marrowfield.example'
beforeAll(async () => {
  bench = await workbench(3600)
  const cluster = await formed(bench)
  systemId = cluster.systemId
  for (const [name, groupName] of [
    ['scanner-gate', 'ct-scans'],
    ['kiosk-7', 'kiosk'],
  ] as const) {
    const agentAddress = `http://127.0.0.1:${bench.fleet.ports.hosts[name]}`
    await bench.carriedOut('register-host', { agentAddress, groupName })
  }
  hostId = (await bench.estate()).hosts.find(({ name }) => name === 'scanner-gate')?.id ?? ''
})
afterAll(() => bench.close())

const done = async (kind: string, intent: object) => {
  const change = await bench.carriedOut(kind, intent)
  expect([kind, change.state, change.refusal?.why]).toEqual([kind, 'proven', undefined])
  return change
}
const rule = (client: string, access: string) => ({
  ...{ client, access, squash: 'root', anonUid: 65_534, anonGid: 65_534, flavours: ['sys'] },
})
const trial = () => ({ shareId, hostId, uid: 2001, gid: 300, groups: [], isRestarted: false })
const standsOn = async () =>
  (await bench.estate()).fileServices[0]?.instances.map(({ unit, standsOn: on }) => (on === unit ? 'own' : on))

test('a cluster serves files from each of its nodes, and a share is proven by hosts that log in nowhere too', async () => {
  await done('serve-files', {
    ...{ systemId, name: server, firstAddress: '10.61.40.21/24', nameServers: '', searchSuffixes: '' },
  })
  expect(await standsOn()).toEqual(['own', 'own', 'own', 'own'])
  const { fileServices, pools } = await bench.estate()
  const change = await done('provision-share', {
    ...{ fileServiceId: fileServices[0]?.id, name: 'ct-scans', size: '256 MiB', classId: '', mode: '0770' },
    ...{ poolId: pools.find(pool => pool.systemId === systemId)?.id, ownerUid: 2001, ownerGid: 300 },
    rules: [rule('10.60.46.12', 'rw'), rule('10.60.53.0/24', 'ro')],
  })
  const claims = (await evidenceOf({ database: bench.database }, change.id)).map(({ claim }) => claim)
  expect(claims).toContain('uid 2001 from scanner-gate writes a file')
  expect(claims).toContain('uid 2001 from kiosk-7 is refused a write')
  shareId = (await bench.estate([{ kind: 'shares', field: 'name', values: ['ct-scans'] }])).shares[0]?.id ?? ''
})

test('a node is taken away under the mounted share: its address moves, its pieces are read from the others, and it comes home', async () => {
  await done('test-share', trial())
  bench.fleet.row.setPower('godwit-1', false)
  await bench.until(async () => {
    await bench.carriedOut('test-share', trial())
    return (await standsOn())?.[0] !== 'own' && (await standsOn())?.[0] !== null
  }, 'another node answers at its address')
  await done('test-share', trial())
  const checks = async () =>
    (await standingFindings({ database: bench.database }, systemId)).map(({ finding }) => finding.check)
  await bench.until(async () => (await checks()).includes('file-address-moved'), 'it is found')
  bench.fleet.row.setPower('godwit-1', true)
  await bench.until(async () => {
    await bench.carriedOut('test-share', trial())
    return (await standsOn())?.[0] === 'own'
  }, 'the address comes home')
})

test('what a share holds is written to its volume, in the pool of the cluster', async () => {
  const { volumeId = '' } = (await bench.estate([one('shares', shareId)])).shares[0] ?? {}
  const volume = (await bench.estate([one('volumes', volumeId)])).volumes[0]
  expect(volume).toMatchObject({ name: 'ct-scans', systemId, isThin: true })
  expect(volume?.writtenBytes).toBeGreaterThan(0n)
})
