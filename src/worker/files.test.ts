import { spawn } from 'node:child_process'
import { one, those } from '@/core/estate'
import { takeOverScripts } from '@/core/network'
import { connectFromHost } from '@/looking'
import { filesPage, sharePage, standingFindings } from '@/records/queries'
import { foldersIn, scansOf } from '@/records/files'
import { draftReverse, resume } from '@/drafting'
import { run } from '@/records/database'
import { evidenceOf } from '@/records/changes'
import { blocks, factOf } from './testing/blocks'
import { tester } from './testing/workbench'

let bench: Awaited<ReturnType<typeof blocks>>
let bittern = ''
let shareId = ''
beforeAll(async () => {
  bench = await blocks()
  bittern = await bench.registered('bittern')
})
afterAll(() => bench.close())

/** What a fault says that is not of its kind. */
const harmless = { milliseconds: 0, retryAfterSeconds: 0, atRatio: 0, drive: '', times: 0 }
const server = 'files.canal.marrowfield.example'
const rule = (client: string, access: string, more: object = {}) => ({
  client,
  access,
  squash: 'root',
  anonUid: 65_534,
  anonGid: 65_534,
  flavours: ['sys'],
  ...more,
})
/** register-1 may write, its neighbours only read; the backup host is root to it; no rule is for anybody else. */
const rules = [rule('10.60.30.11', 'rw'), rule('10.60.30.0/24', 'ro'), rule('10.60.9.12', 'ro', { squash: 'none' })]
const service = (more: object = {}) => ({
  systemId: bittern,
  name: server,
  firstAddress: '10.60.2.40/24',
  nameServers: '',
  searchSuffixes: '',
  ...more,
})
const control = (fault: object) =>
  fetch(`http://127.0.0.1:${bench.fleet.ports.control}/faults`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ target: 'bittern', ...fault }),
  })
const evidence = async (id: string) =>
  (await evidenceOf({ database: bench.database }, id)).map(({ claim, holds }) => `${holds ? '' : 'NOT '}${claim}`)
const pool = async () => (await bench.estate()).pools.find(({ name }) => name === 'bittern-bulk-01')?.id
const asked = async (more: object = {}) => ({
  fileServiceId: (await bench.estate()).fileServices[0]?.id ?? '',
  name: 'ct-archive',
  size: '64 MiB',
  poolId: await pool(),
  classId: '',
  ownerUid: 2001,
  ownerGid: 300,
  mode: '2770',
  rules,
  ...more,
})

test('a file service answers at an address for each controller, found by its name', async () => {
  expect(await bench.refused('serve-files', service({ systemId: bench.ids['heron'] }))).toEqual(['units'])
  expect(await bench.refused('serve-files', service({ name: 'files', firstAddress: '10.60.2.40' }))).toEqual([
    'name',
    'address',
  ])
  const made = await bench.done('serve-files', service())
  expect(await evidence(made.id)).toEqual([
    'Controller A answers at 10.60.2.40',
    'Controller B answers at 10.60.2.41',
    `keep-1 looks up ${server} and reaches it`,
    'keep-1 reaches 10.60.2.40',
    'keep-1 reaches 10.60.2.41',
  ])
  expect(await bench.refused('serve-files', service())).toEqual(['name-free', 'addresses-free'])
})

test('a share is proven from hosts for which different rules decide, as its owner and as a stranger', async () => {
  const change = await bench.done('provision-share', await asked())
  expect(await evidence(change.id)).toEqual([
    'The system states the share as it was asked for',
    'keep-1 mounts /ct-archive',
    'uid 2001 from keep-1 is refused a write',
    'uid 65533 from keep-1 is refused a write',
    'register-1 mounts /ct-archive',
    'uid 2001 from register-1 writes a file',
    'uid 2001 from register-1 reads back what was written',
    'uid 65533 from register-1 is refused a write',
    'register-2 mounts /ct-archive',
    'uid 2001 from register-2 is refused a write',
    'uid 65533 from register-2 is refused a write',
  ])
  const { shares } = await bench.estate([{ kind: 'shares', field: 'name', values: ['ct-archive'] }])
  shareId = shares[0]?.id ?? ''
  expect(shares[0]).toMatchObject({ path: '/ct-archive', mode: '2770', ownerUid: 2001, sizeBytes: 67_108_864n })
  expect(await bench.refused('provision-share', await asked())).toEqual(['name-free', 'volume-free'])
  // Its volume carries its files: no host may see it as a disk, and nobody removes it.
  const volumeId = factOf(change, 'volumeId')
  expect(await bench.refused('map-volume', { volumeId, hostGroupId: bench.ids['backup'] })).toEqual([
    'unshared',
    'no-file-system',
  ])
  expect(await bench.refused('remove-volume', { volumeId, confirmedName: 'ct-archive' })).toEqual(['unshared'])
})

test('rules are set, and what hosts then meet is what is computed; before and after are kept', async () => {
  expect(
    await bench.refused('set-share-rights', {
      shareId,
      ownerUid: 0,
      ownerGid: 0,
      mode: '9',
      rules: [rule('10.0.0.1%eth0', 'rw')],
    }),
  ).toEqual(['mode', 'rules'])
  expect(
    await bench.refused('set-share-rights', {
      shareId,
      ownerUid: 0,
      ownerGid: 0,
      mode: '755',
      rules: [rule('*', 'rw', { flavours: ['krb5p'] })],
    }),
  ).toEqual(['sign-in'])
  const turned = {
    shareId,
    ownerUid: 2001,
    ownerGid: 300,
    mode: '0775',
    rules: [rule('10.60.30.12', 'none'), rule('10.60.0.0/16', 'rw', { squash: 'all', anonUid: 2001, anonGid: 300 })],
  }
  const change = await bench.done('set-share-rights', turned)
  expect(await evidence(change.id)).toEqual([
    'The system states the rules, the grants and the mode as they were asked for',
    'keep-1 mounts /ct-archive',
    'uid 2001 from keep-1 writes a file',
    'uid 2001 from keep-1 reads back what was written',
    'uid 65533 from keep-1 writes a file',
    'uid 65533 from keep-1 reads back what was written',
    'register-2 is not let mount /ct-archive',
  ])
  await bench.done('set-share-rights', { shareId, ownerUid: 2001, ownerGid: 300, mode: '2770', rules })
})

test('an access list counts in place of the mode: those whom it names meet what is computed, and so does anybody else', async () => {
  const entry = (kind: 'allow' | 'deny', who: string, may: 'read' | 'write' | 'both') => ({ kind, who, may })
  const listed = {
    ...{ shareId, ownerUid: 2001, ownerGid: 300, mode: '0777' },
    rules: [rule('10.60.0.0/16', 'rw', { squash: 'none' })],
    acl: [
      entry('deny', 'uid:3001', 'write'),
      entry('allow', 'gid:3100', 'both'),
      entry('allow', 'OWNER@', 'both'),
      entry('allow', 'EVERYONE@', 'read'),
    ],
  }
  expect(await bench.refused('set-share-rights', { ...listed, acl: [entry('allow', 'somebody', 'read')] })).toEqual([
    'entries',
  ])
  const change = await bench.done('set-share-rights', listed)
  const claims = (await evidence(change.id)).map(each => each.replace(/ from \S+/, '').replace(/^\S+ mounts/, 'mounts'))
  expect(claims).toEqual([
    'The system states the rules, the grants and the mode as they were asked for',
    'mounts /ct-archive',
    'uid 2001 writes a file',
    'uid 2001 reads back what was written',
    'uid 3001 is refused a write',
    'uid 65531 writes a file',
    'uid 65531 reads back what was written',
    'uid 65533 is refused a write',
  ])
  const stated = async () =>
    (await bench.estate([one('shares', shareId)])).shares.find(({ id }) => id === shareId)?.acl.map(({ who }) => who)
  await bench.until(async () => (await stated())?.length === 4, 'the list is read')
  // What is made there has those entries that are handed down, and no others: not even whoever made it reads it.
  const handed = [
    ...[entry('allow', 'OWNER@', 'both'), entry('allow', 'EVERYONE@', 'both')],
    { ...entry('deny', 'OWNER@', 'read'), isInherited: true },
    { ...entry('allow', 'uid:3001', 'read'), isInherited: true },
  ]
  const below = await bench.done('set-share-rights', { ...listed, acl: handed })
  expect((await evidence(below.id)).filter(each => each.includes('uid 2001'))).toEqual([
    expect.stringMatching(/^uid 2001 from \S+ writes a file$/),
    expect.stringMatching(/^uid 2001 from \S+ is refused to read what was written$/),
  ])
  const by = (uid: number) => ({ uid, gid: uid, groups: [] })
  const note = (path: string, more: object) =>
    bench.agent('register-1', `/shares${path}`, { path: '/mnt/handed/note.txt', ...more })
  await note('', { server, share: '/ct-archive', path: '/mnt/handed' })
  expect((await note('/write', { as: by(2001), lengthBytes: 4096, seed: 'handed down' })).status).toBe(200)
  const statuses = await Promise.all(
    [2001, 3001, 65_533].map(async uid => (await note('/read', { as: by(uid) })).status),
  )
  expect(statuses).toEqual([403, 200, 403])
  await note('/remove', { as: by(2001) })
  await bench.agent('register-1', '/mounts/remove', { path: '/mnt/handed' })
  await bench.done('set-share-rights', listed)
  // Whoever sets rights without a word of the list leaves it as it is; an empty one takes it away.
  await bench.done('set-share-rights', { ...listed, acl: undefined, mode: '0770' })
  expect(await stated()).toEqual(['uid:3001', 'gid:3100', 'OWNER@', 'EVERYONE@'])
  await bench.done('set-share-rights', { shareId, ownerUid: 2001, ownerGid: 300, mode: '2770', rules, acl: [] })
  expect(await stated()).toEqual([])
})

test('what may be written is limited, and a host meets each limit: the last byte that fits, the next, and a forbidden kind', async () => {
  const quota = (path: string, of: string, hardBytes: string, more: object = {}) => ({
    path,
    of,
    id: null,
    softBytes: null,
    hardBytes,
    graceDays: 7,
    ...more,
  })
  const limits = {
    shareId,
    quotas: [quota('/', 'user', '8388608'), quota('/people', 'each directory', '3145728', { softBytes: '1048576' })],
    fileRules: [
      { pattern: '*.mp3', content: 'any', verdict: 'deny' },
      { pattern: '*', content: 'audio', verdict: 'deny' },
    ],
  }
  expect(
    await bench.refused('set-share-limits', {
      ...limits,
      quotas: [quota('people', 'tree', '1')],
      fileRules: [{ pattern: 'a/b', content: 'any', verdict: 'deny' }],
    }),
  ).toEqual(['quotas', 'file-rules'])
  const change = await bench.done('set-share-limits', limits)
  expect(await evidence(change.id)).toEqual([
    'The system states the limits as they were asked for',
    'register-1 takes one byte, and is refused one more than the 8 MiB that user in / leaves',
    'register-1 takes the 3 MiB that each directory in /people leaves, and is refused the next byte',
    'register-1 is refused *.mp3',
    'register-1 is refused * of audio',
  ])
  // What somebody writes is counted, and what stands above its soft limit is told with since when.
  const as = { uid: 2001, gid: 300, groups: [] }
  const at = { server, share: '/ct-archive', path: '/mnt/homes' }
  expect((await bench.agent('register-1', '/shares', at)).status).toBe(200)
  const written = await bench.agent('register-1', '/shares/write', {
    path: '/mnt/homes/people/ines/a.txt',
    as,
    lengthBytes: 2_000_000,
    seed: 's',
  })
  expect(written.sha256).toHaveLength(64)
  const over = await bench.agent('register-1', '/shares/write', {
    path: '/mnt/homes/people/ines/b.txt',
    as,
    lengthBytes: 2_000_000,
    seed: 's',
  })
  expect([over.status, over.why]).toEqual([403, expect.stringContaining('quota exceeded')])
  await bench.done('test-share', {
    shareId,
    hostId: bench.ids['register-1'],
    uid: 2001,
    gid: 300,
    groups: [],
    isRestarted: false,
  })
  const [share] = (await bench.estate([one('shares', shareId)])).shares
  expect(share?.quotaUsage).toMatchObject([
    { index: 0, key: 'user 2001', usedBytes: '2000000', overSoftSince: null },
    { index: 1, key: '/people/ines', usedBytes: '2000000', overSoftSince: expect.any(String) as string },
  ])
  // A quota below what is used is let, and said.
  const { plan } = await bench.drafted('set-share-limits', {
    ...limits,
    quotas: [quota('/people', 'each directory', '1000000')],
  })
  expect(plan.checks.find(({ rule }) => rule === 'below-used')?.why).toContain('/people/ines holds')
  // Two directories of one project share what it is given: what the one holds, the other no longer may.
  const project = { name: 'portraits', alsoAt: ['/studio'] }
  const together = quota('/people/ines', 'project', '3145728', { project })
  const limited = await bench.done('set-share-limits', { shareId, quotas: [together], fileRules: [] })
  expect(await evidence(limited.id)).toContainEqual(expect.stringContaining('that project portraits leaves'))
  const studio = { path: '/mnt/homes/studio/b.txt', as, lengthBytes: 2_000_000, seed: 's' }
  const refused = await bench.agent('register-1', '/shares/write', studio)
  expect([refused.status, refused.why]).toEqual([403, expect.stringContaining('quota exceeded')])
  await bench.agent('register-1', '/shares/remove', { path: '/mnt/homes/people/ines/a.txt', as })
  await bench.agent('register-1', '/mounts/remove', { path: '/mnt/homes' })
  await bench.done('set-share-limits', { shareId, quotas: [], fileRules: [] })
})

test('labels and a warning of its own stand with a share, whatever its system states of it', async () => {
  const notes = { shareId, labels: 'imaging\n archive \nimaging', warnPercent: 70 }
  expect(await bench.refused('label-share', { ...notes, labels: 'x'.repeat(61) })).toEqual(['labels'])
  await bench.done('label-share', notes)
  const noted = async () => (await bench.estate([one('shares', shareId)])).shares[0]
  expect(await noted()).toMatchObject({ labels: ['imaging', 'archive'], warnPercent: 70 })
  expect(await bench.refused('label-share', notes)).toEqual(['other'])
  await bench.done('label-share', { ...notes, labels: '', warnPercent: null })
  expect(await noted()).toMatchObject({ labels: [], warnPercent: null })
})

test('hosts find earlier files in the snapshots that a share shows, and none while it hides them', async () => {
  const as = { uid: 2001, gid: 300, groups: [] }
  const asked = (path: string, more: object) =>
    bench.agent('register-1', `/shares${path}`, { path: '/mnt/ct/scan.txt', as, ...more })
  await asked('', { server, share: '/ct-archive', path: '/mnt/ct' })
  const { sha256 } = await asked('/write', { lengthBytes: 4096, seed: 'as it was' })
  const partSum = async (offsetBytes: number) => (await asked('/read', { offsetBytes, lengthBytes: 8192 })).sha256
  expect([(await partSum(0)) === sha256, (await partSum(1)) === sha256]).toEqual([true, false])
  const volumeId = (await bench.estate([one('shares', shareId)])).shares[0]?.volumeId
  await bench.done('take-snapshot', { volumeId, name: 'before-the-tidying', reason: '' })
  await asked('/remove', {})
  const lost = { path: '/mnt/ct/.earlier/before-the-tidying/scan.txt' }
  expect((await asked('/read', lost)).status).toBe(404)
  const change = await bench.done('show-earlier-files', { shareId, isShown: true })
  expect(await evidence(change.id)).toEqual([
    'The system states that they are shown',
    'keep-1 looks into before-the-tidying',
    'keep-1 reads a file as before-the-tidying holds it',
    'keep-1 is refused a write into before-the-tidying',
  ])
  expect(await bench.refused('show-earlier-files', { shareId, isShown: true })).toEqual(['other'])
  // As it was, for whom the share lets read only; and nobody takes it away there.
  expect(await asked('/read', lost)).toMatchObject({ status: 200, sha256 })
  expect(await asked('/remove', lost)).toMatchObject({ status: 403 })
  expect(await asked('/write', { ...lost, path: `${lost.path}.new`, lengthBytes: 1, seed: 'x' })).toMatchObject({
    status: 403,
  })
  expect(await asked('/read', { path: '/mnt/ct/.earlier/never/scan.txt' })).toMatchObject({ status: 404 })
  const hidden = await bench.done('show-earlier-files', { shareId, isShown: false })
  expect(await evidence(hidden.id)).toContain('keep-1 does not find before-the-tidying')
  await bench.agent('register-1', '/mounts/remove', { path: '/mnt/ct' })
})

test('a rule for a host by its name decides for whom the name server calls so, and is proven by that host', async () => {
  const name = 'register-one.canal.marrowfield.example'
  await control({ kind: 'address-record', name, address: '10.60.30.11' })
  const byName = [rule(name.toUpperCase(), 'rw', { squash: 'none' }), rule('10.60.0.0/16', 'ro')]
  const asked = { shareId, ownerUid: 2001, ownerGid: 300, mode: '2770' }
  const change = await bench.done('set-share-rights', { ...asked, rules: byName })
  const claims = await evidence(change.id)
  expect(claims).toContain('uid 2001 from register-1 writes a file')
  expect(claims.filter(claim => claim.includes('is refused a write') && claim.includes('uid 2001'))).not.toEqual([])
  const page = await sharePage({ database: bench.database }, shareId)
  expect(page?.hosts.find(each => each.name === 'register-1')?.clientName).toBe(name)
  await bench.done('set-share-rights', { ...asked, rules })
  await control({ kind: 'address-record', name: '', address: '10.60.30.11' })
})

test('somebody tries it from a host that restarts between, and finds it mounted again', async () => {
  const trial = { shareId, hostId: bench.ids['register-1'], uid: 2001, gid: 300, groups: [], isRestarted: true }
  const change = await bench.done('test-share', trial)
  expect(await evidence(change.id)).toContain('register-1 has restarted and mounts /ct-archive again by itself')
  expect(await bench.refused('test-share', { ...trial, hostId: '' })).toEqual(['host'])
})

test('a barred way is found at its hop; by another address the host gets through', async () => {
  const bar = (kind: string, address: string) => control({ kind, name: '10.60.30.11', address })
  const trial = { shareId, hostId: bench.ids['register-1'], uid: 2001, gid: 300, groups: [], isRestarted: false }
  await bar('way-barred', '10.60.2.40')
  const around = await bench.done('test-share', trial)
  expect((await evidence(around.id)).slice(0, 3)).toEqual([
    `register-1 looks up ${server}, and is led to one of its addresses`,
    'register-1 gets through to 10.60.2.41, port 2049',
    'register-1 mounts /ct-archive',
  ])
  await bar('way-barred', '10.60.2.41')
  const stuck = await bench.carriedOut('test-share', trial)
  expect(stuck.state).toBe('unproven')
  expect((await evidence(stuck.id)).at(-1)).toBe('NOT register-1 gets through to 10.60.2.40, port 2049')
  await bar('way-open', '10.60.2.40')
  await bar('way-open', '10.60.2.41')
  // For a day nobody looks at it; then it is proven at the second try, and has not taken that day.
  const scope = { database: bench.database }
  const aDayAgo =
    "update changes set carried_out_at = carried_out_at - interval '1 day', ended_at = ended_at - interval '1 day' where id = $1"
  await run(scope, aDayAgo, [stuck.id])
  await resume(bench.database, stuck.id, false, tester)
  const proven = await bench.ended(stuck.id)
  expect(proven.state).toBe('proven')
  expect(proven.tookSeconds).toBeLessThan(7200)
})

test('the name of an old server is turned over and given back by the scripts, as a host sees it', async () => {
  const oldName = 'oldfiles.marrowfield.example'
  await control({ kind: 'name-record', name: oldName, address: '10.60.9.99' })
  const scripts = takeOverScripts({ oldName, addresses: ['10.60.9.99'], newName: server, account: null })
  const update = (script: string) =>
    new Promise<boolean>(done => {
      const run = spawn('/usr/bin/nsupdate', [], { stdio: ['pipe', 'ignore', 'ignore'] })
      run.on('close', code => done(code === 0))
      run.stdin.end(`server 127.0.0.1 ${bench.fleet.ports.names}\n${script}`)
    })
  const sees = async () => {
    const { signal } = new AbortController()
    const hostId = bench.ids['register-1'] ?? ''
    const { address, isOpen } = await connectFromHost({ database: bench.database }, bench.key, hostId, oldName, signal)
    return [address, isOpen]
  }
  expect(await sees()).toEqual(['10.60.9.99', false])
  expect(await update(scripts.names)).toBe(true)
  expect(await sees()).toEqual(['10.60.2.40', true])
  // What was seen stands no more: turned over again, nothing is changed.
  expect(await update(scripts.names)).toBe(false)
  expect(await update(scripts.namesBack)).toBe(true)
  expect(await sees()).toEqual(['10.60.9.99', false])
})

test('a host walks through all files: what it finds is kept, and who may not look finds nothing', async () => {
  const as = { uid: 2001, gid: 300, groups: [] }
  await bench.agent('register-1', '/shares', { server, share: '/ct-archive', path: '/mnt/walk' })
  for (const name of ['a/1.tif', 'b/2.tif'])
    await bench.agent('register-1', '/shares/write', { path: `/mnt/walk/${name}`, as, lengthBytes: 90_000, seed: name })
  await bench.agent('register-1', '/mounts/remove', { path: '/mnt/walk' })
  const look = { shareId, hostId: bench.ids['register-1'], personId: '', uid: 2001, gid: 300 }
  const change = await bench.done('report-files', look)
  expect(await evidence(change.id)).toEqual([
    'What was found is no more than its system says is used',
    'Its largest file is found again as it was told',
  ])
  const page = await filesPage({ database: bench.database }, shareId, 'all')
  expect(page?.scan).toMatchObject({ hostName: 'register-1', seenAs: 'uid 2001', report: { files: page?.slice.files } })
  expect(page?.slice.largest[0]?.path).toMatch(/^\/.+\/.+/)
  const { items } = await foldersIn({ database: bench.database }, page?.scan?.id ?? '', 0, { offset: 0, limit: 9 })
  expect(items.map(({ name }) => name).sort()).toEqual(['a', 'b'])
  const stranger = await bench.carriedOut('report-files', { ...look, uid: 77, gid: 77 })
  expect(stranger.refusal?.why).toContain('permission denied')
  expect(await scansOf({ database: bench.database }, shareId, 9)).toHaveLength(1)
  await bench.done('report-files', look)
  expect((await filesPage({ database: bench.database }, shareId, 'all'))?.before?.id).toBe(page?.scan?.id)
})

test('a controller goes away under a mounted share: another answers at its address', async () => {
  bench.fleet.faults.inject({ kind: 'controller-down', target: 'bittern', controller: 'A', ...harmless })
  const trial = { shareId, hostId: bench.ids['register-1'], uid: 2001, gid: 300, groups: [], isRestarted: false }
  await bench.done('test-share', trial)
  expect((await bench.estate()).fileServices[0]?.instances[0]?.standsOn).toBe('Controller B')
  const checks = async () =>
    (await standingFindings({ database: bench.database }, null)).map(({ finding }) => finding.check)
  await bench.until(async () => (await checks()).includes('file-address-moved'), 'the address is found to have moved')
  bench.fleet.faults.clear()
})

test('a share is taken away: no host can mount it, its files stay; then the service goes', async () => {
  const fileServiceId = (await bench.estate()).fileServices[0]?.id
  expect(await bench.refused('stop-file-service', { fileServiceId })).toEqual(['no-share'])
  expect(await bench.refused('remove-share', { shareId, confirmedName: 'another' })).toEqual(['name-typed'])
  await bench.done('label-share', { shareId, labels: 'archive\nscans', warnPercent: 80 })
  const { volumeId = '' } = (await bench.estate([one('shares', shareId)])).shares[0] ?? {}
  const [before] = (await bench.estate([one('shares', shareId)])).shares
  const change = await bench.done('remove-share', { shareId, confirmedName: 'ct-archive' })
  expect(await evidence(change.id)).toContain('register-1 can no longer mount it')
  expect(await bench.volume(volumeId)).toMatchObject({ name: 'ct-archive', state: 'in use' })

  // Its reverse shares the same files with the same rights and limits, and says of them what was said.
  const again = await draftReverse({ database: bench.database }, change.id, tester)
  await bench.done(again.kind, again.intent)
  const [shared] = (await bench.estate([those('shares', 'volumeId', volumeId)])).shares
  const own = ({ id: _id, locator: _locator, revision: _revision, ...kept }: NonNullable<typeof shared>) => kept
  if (before === undefined || shared === undefined) throw new Error('It is not shared.')
  expect(own(shared)).toEqual(own(before))
  expect(await bench.refused(again.kind, again.intent)).toEqual(['unshared', 'name-free'])
  await bench.done('remove-share', { shareId: shared.id, confirmedName: 'ct-archive' })
  await bench.done('remove-volume', { volumeId, confirmedName: 'ct-archive' })
  await bench.done('delete-held-volume', { volumeId, confirmedName: 'ct-archive' })
  await bench.done('stop-file-service', { fileServiceId })
  expect((await bench.estate()).fileServices).toEqual([])
})
