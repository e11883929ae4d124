import { one, those, within } from '@/core/estate'
import { evidenceOf } from '@/records/changes'
import { workbench } from './testing/workbench'

let bench: Awaited<ReturnType<typeof workbench>>
const ids: Partial<Record<string, string>> = {}

beforeAll(async () => {
  bench = await workbench(36_000)
  const systemId = await bench.registered('heron')
  const { drives } = await bench.estate(within(systemId))
  const pool = await bench.carriedOut('create-pool', {
    systemId,
    name: 'heron-fast-01',
    driveIds: drives.slice(0, 8).map(each => each.id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 0,
    snapshotSharePercent: 10,
  })
  bench.fleet.clock.setRate(600)
  for (const [host, groupName] of [
    ['register-1', 'accession-register'],
    ['keep-1', 'backup'],
  ] as const) {
    const agentAddress = `http://127.0.0.1:${bench.fleet.ports.hosts[host]}`
    await bench.carriedOut('register-host', { agentAddress, groupName })
  }
  const { hosts, hostGroups } = await bench.estate()
  for (const { id, name } of [...hosts, ...hostGroups]) ids[name] = id
  const volume = await bench.carriedOut('provision-volume', {
    name: 'register-data-01',
    purpose: 'data',
    size: '64 MiB',
    poolId: pool.facts['poolId'],
    isThin: true,
    hostGroupId: ids['accession-register'],
  })
  ids['volume'] = String(volume.facts['volumeId'] as string)
}, 60_000)
afterAll(() => bench.close())

/** What a host's agent answers. */
async function agent(host: string, path: string, body: object) {
  const answer = await fetch(`http://127.0.0.1:${bench.fleet.ports.hosts[host]}/agent${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  })
  const said = (await answer.json()) as { readonly sha256?: string; readonly why?: string; readonly sizeBytes?: string }
  return { status: answer.status, ...said }
}
const intent = () => ({
  volumeId: ids['volume'],
  hostId: ids['register-1'],
  fileSystem: 'xfs',
  path: '',
  isRestarted: true,
})
const broken = async (more: object) =>
  (await bench.drafted('prepare-volume', { ...intent(), ...more })).plan.checks
    .filter(check => !check.holds && check.level === 'must')
    .map(check => check.rule)
const done = async (kind: string, wish: object) => {
  const change = await bench.carriedOut(kind, wish)
  expect([kind, change.state, change.refusal?.why]).toEqual([kind, 'proven', undefined])
  return change
}
const path = '/srv/register-data-01'

test('a volume is made ready: found, given a file system, mounted, and there again after a restart', async () => {
  const change = await done('prepare-volume', intent())
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(({ claim, holds }) => [claim, holds])).toEqual([
    ['register-1 has restarted', true],
    [`register-1 has it mounted at ${path}, and mounts it at every start`, true],
    ['register-1 reads back the file that it wrote before it restarted', true],
  ])
}, 60_000)

test('what stands on it is mounted as it is, never made anew', async () => {
  const { sha256 } = await agent('register-1', '/files/write', {
    path: `${path}/ledger`,
    lengthBytes: 5_000_000,
    seed: 'ours',
  })
  await done('prepare-volume', { ...intent(), fileSystem: 'ext4', isRestarted: false })
  expect((await agent('register-1', '/files/read', { path: `${path}/ledger` })).sha256).toBe(sha256)
  ids['ledger'] = sha256 ?? ''
  const { volumes } = await bench.estate([one('volumes', ids['volume'])])
  const again = await agent('register-1', `/devices/${volumes[0]?.naa}/format`, { fileSystem: 'xfs', label: 'x' })
  expect([again.status, again.why]).toEqual([409, 'One stands on the disk already.'])
}, 60_000)

test('a file that was deleted is found in a snapshot by the backup host, and brought back', async () => {
  const taken = await done('take-snapshot', { volumeId: ids['volume'], name: 'before', reason: 'the day before' })
  await agent('register-1', '/files/remove', { path: `${path}/ledger` })
  expect((await agent('register-1', '/files/read', { path: `${path}/ledger` })).status).toBe(404)
  const shown = { volumeId: ids['volume'], snapshotId: taken.facts['snapshotId'], hostGroupId: ids['backup'] }
  await done('show-snapshot', shown)
  const { snapshots } = await bench.estate([those('snapshots', 'volumeId', ids['volume'])])
  await agent('keep-1', '/mounts', { naa: snapshots[0]?.naa, path: '/mnt/back' })
  expect((await agent('keep-1', '/files/read', { path: '/mnt/back/ledger' })).sha256).toBe(ids['ledger'])
  expect((await agent('keep-1', '/files/write', { path: '/mnt/back/new', lengthBytes: 10, seed: 'x' })).status).toBe(
    403,
  )
  await agent('keep-1', '/mounts/remove', { path: '/mnt/back' })
  await done('hide-snapshot', shown)
  expect((await agent('keep-1', '/mounts', { naa: snapshots[0]?.naa, path: '/mnt/back' })).status).toBe(404)
}, 60_000)

test('a file system that is full says so, and grows with its volume', async () => {
  const big = { path: `${path}/scans`, lengthBytes: 60_000_000, seed: 'scan' }
  await agent('register-1', '/files/write', { ...big, path: `${path}/first`, lengthBytes: 30_000_000 })
  expect((await agent('register-1', '/files/write', big)).status).toBe(507)
  await done('expand-volume', { volumeId: ids['volume'], size: '128 MiB' })
  expect((await agent('register-1', '/files/write', big)).status).toBe(507)
  expect((await agent('register-1', '/mounts/grow', { path })).sizeBytes).toBe(`${128 * 1_048_576}`)
  expect((await agent('register-1', '/files/write', big)).status).toBe(200)
}, 60_000)

test.each([
  [{ path: '/etc' }, ['path']],
  [{ path: 'srv/x' }, ['path']],
  [{ path: '/srv/../etc' }, ['path']],
  [{ path: '/srv/$(reboot)' }, ['path']],
  [{ hostId: '' }, ['host']],
])('%j cannot be', async (more, rules) => expect(await broken(more)).toEqual(rules))

test('a host that does not see it is none to make it ready on', async () => {
  expect(await broken({ hostId: ids['keep-1'] })).toEqual(['host'])
})
