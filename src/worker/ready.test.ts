import { one, those } from '@/core/estate'
import { evidenceOf } from '@/records/changes'
import { blocks } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
let ids: Awaited<ReturnType<typeof blocks>>['ids'] = {}
let agent: Awaited<ReturnType<typeof blocks>>['agent']
let done: Awaited<ReturnType<typeof blocks>>['done']

beforeAll(async () => {
  bench = await blocks()
  ;({ ids, agent, done } = bench)
  bench.fleet.clock.setRate(600)
})
afterAll(() => bench.close())

const intent = () => ({
  volumeId: ids['volume'],
  hostId: ids['register-1'],
  fileSystem: 'xfs',
  path: '',
  isRestarted: true,
})
const broken = (more: object) => bench.refused('prepare-volume', { ...intent(), ...more })
const path = '/srv/register-data-01'

test('a volume is made ready: found, given a file system, mounted, and there again after a restart', async () => {
  const change = await done('prepare-volume', intent())
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(({ claim, holds }) => [claim, holds])).toEqual([
    ['register-1 has restarted', true],
    [`register-1 has it mounted at ${path}, and mounts it at every start`, true],
    ['register-1 reads back the file that it wrote before it restarted', true],
  ])
})

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
})

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
})

test('it comes back by one change, from the latest snapshot that holds it, and is not written over', async () => {
  const wish = { volumeId: ids['volume'], snapshotId: '', hostId: ids['register-1'], path: `${path}/ledger`, to: '' }
  await done('take-snapshot', { volumeId: ids['volume'], name: 'without', reason: '' })
  const change = await done('bring-back-file', wish)
  expect(change.facts).toMatchObject({ snapshotName: 'before', copiedSha256: ids['ledger'] })
  expect((await agent('register-1', '/files/read', { path: `${path}/ledger` })).sha256).toBe(ids['ledger'])
  const again = await bench.carriedOut('bring-back-file', wish)
  expect([again.state, again.refusal?.why]).toEqual(['failed', `A file is at ${path}/ledger already.`])
  const beside = await done('bring-back-file', { ...wish, to: `${path}/ledger.before` })
  expect((await agent('register-1', '/files/read', { path: `${path}/ledger.before` })).sha256).toBe(ids['ledger'])
  // Nothing of it stays: neither what was shown, nor what was mounted.
  const { mappings } = await bench.estate([those('snapshots', 'volumeId', ids['volume'])])
  expect(mappings.filter(each => each.snapshotId !== null)).toEqual([])
  expect(beside.facts['snapshotName']).toBe('before')
  await agent('register-1', '/files/remove', { path: `${path}/ledger.before` })
})

test.each([
  [{ path: '/srv/register-data-01/nothing' }, 'None of the 2 latest snapshots holds a file of that name.'],
  [
    { path: '/srv/elsewhere/ledger' },
    'register-1 has this volume mounted at /srv/register-data-01, where the path does not lie.',
  ],
])('%j is not brought back', async (more, why) => {
  const wish = { volumeId: ids['volume'], snapshotId: '', hostId: ids['register-1'], to: '', ...more }
  const change = await bench.carriedOut('bring-back-file', wish)
  expect([change.state, change.refusal?.why]).toEqual(['failed', why])
})

test('a path that a shell would mind is refused before anything is asked of the host', async () => {
  const { plan } = await bench.drafted('bring-back-file', {
    volumeId: ids['volume'],
    snapshotId: '',
    hostId: ids['register-1'],
    path: '/srv/$(reboot)',
    to: '../x',
  })
  expect(plan.checks.filter(check => !check.holds).map(check => check.rule)).toEqual(['path', 'to'])
})

test('a file system that is full says so, and grows with its volume', async () => {
  const big = { path: `${path}/scans`, lengthBytes: 60_000_000, seed: 'scan' }
  await agent('register-1', '/files/write', { ...big, path: `${path}/first`, lengthBytes: 30_000_000 })
  expect((await agent('register-1', '/files/write', big)).status).toBe(507)
  await done('expand-volume', { volumeId: ids['volume'], size: '96 MiB', leavesFileSystem: true })
  expect((await agent('register-1', '/files/write', big)).status).toBe(507)
  const change = await done('expand-volume', { volumeId: ids['volume'], size: '128 MiB' })
  expect(change.facts['grown']).toBe(`register-1 ${path}: 128 MiB`)
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(({ claim }) => claim)).toEqual(
    expect.arrayContaining([
      'The file system on register-1 has grown with it',
      `register-1 writes a file at ${path} and reads the same back`,
    ]),
  )
  expect((await agent('register-1', '/files/read', { path: `${path}/first` })).status).toBe(200)
  expect((await agent('register-1', '/files/write', big)).status).toBe(200)
})

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
