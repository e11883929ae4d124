import { keepSecret } from '@/records/secrets'
import { rows } from '@/records/database'
import { evidenceOf } from '@/records/changes'
import { identifyDirectory } from '@/connectors'
import { somebody } from '@/records/queries'
import { blocks } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
let address = ''
let fingerprint = ''
const baseDn = 'dc=marrowfield,dc=example'
const harmless = { milliseconds: 0, retryAfterSeconds: 0, atRatio: 0, drive: '', times: 0 }
const { signal } = new AbortController()

beforeAll(async () => {
  bench = await blocks()
  await bench.registered('bittern')
  address = `ldaps://127.0.0.1:${bench.fleet.ports.directory}`
  ;({ fingerprint } = await identifyDirectory({ address, allowedNetworks: '127.0.0.0/8' }, signal))
})
afterAll(() => bench.close())

const scope = () => ({ database: bench.database })
const secret = (text: string, purpose: 'directory' | 'joining') =>
  keepSecret(scope(), bench.key, { text, purpose, madeBy: 'tester' })
const evidence = async (id: string) =>
  (await evidenceOf(scope(), id)).map(({ claim, holds }) => `${holds ? '' : 'NOT '}${claim}`)
const directory = async (more: object = {}) => ({
  ...{ name: 'museum', address, fingerprint, baseDn, readAs: `cn=reader,ou=services,${baseDn}` },
  secretId: await secret('directory-demo', 'directory'),
  ...more,
})
const principal = async (account: string) =>
  (await bench.estate([{ kind: 'principals', field: 'account', values: [account] }])).principals[0]
const service = async () => (await bench.estate()).fileServices[0]

test('a directory is seen before it is told anything, and read by the certificate that was accepted only', async () => {
  const seen = await identifyDirectory({ address, allowedNetworks: '127.0.0.0/8' }, signal)
  expect(seen).toMatchObject({ baseDns: [baseDn], certificateTrouble: 'DEPTH_ZERO_SELF_SIGNED_CERT' })
  expect(
    await bench.refused('register-directory', await directory({ address: 'ldap://x', fingerprint: 'AB' })),
  ).toEqual(['address', 'certificate'])
  const other = await bench.carriedOut(
    'register-directory',
    await directory({ fingerprint: fingerprint.replace(/^../, '00') }),
  )
  expect(other.state).toBe('failed')
  expect(other.refusal?.why).toContain('another certificate')
  const wrong = await bench.carriedOut(
    'register-directory',
    await directory({ secretId: await secret('no', 'directory') }),
  )
  expect(wrong.refusal?.why).toContain('Name or password is wrong')
  // What was kept to begin with has been taken back, its password too.
  expect(await rows(scope(), 'select 1 from directories')).toEqual([])
  expect(await rows(scope(), `select 1 from kept_secrets where used_at is not null`)).toEqual([])
})

test('people and groups are known by their durable ids, with the groups that contain groups', async () => {
  const made = await bench.done('register-directory', await directory())
  expect(await evidence(made.id)).toEqual([
    'The directory lets itself be read, and people are found',
    'Read again, everybody is known as before',
  ])
  const found = await somebody(scope(), (await principal('a.brenn'))?.id ?? '')
  expect(found?.groups.map(({ account }) => account).sort()).toEqual(['photo-studio', 'photographers', 'staff'])
  expect(await bench.refused('register-directory', await directory({ name: 'again' }))).toEqual(['new'])
})

test('a directory that is taken out is forgotten with its password and its people', async () => {
  const kept = await bench.done('register-directory', await directory({ name: 'twin', baseDn: `ou=people,${baseDn}` }))
  const directoryId = kept.facts['directoryId'] ?? ''
  const people = () => rows(scope(), 'select 1 from principals where directory_id = $1', [directoryId])
  const secrets = () => rows(scope(), `select 1 from kept_secrets where purpose = 'directory' and used_at is not null`)
  expect([(await people()).length, (await secrets()).length]).toEqual([24, 2])
  await bench.done('forget-directory', { directoryId })
  expect([(await people()).length, (await secrets()).length]).toEqual([0, 1])
})

test('who is renamed is known again; who is no longer there is gone, and stays; a ring of groups ends', async () => {
  const before = await principal('b.tolland')
  const { directory: tree } = bench.fleet
  const entry = tree.at(`uid=b.tolland,ou=people,${baseDn}`)
  const photographers = tree.at(`cn=photographers,ou=groups,${baseDn}`)
  const staff = tree.at(`cn=staff,ou=groups,${baseDn}`)
  if (entry === undefined || photographers === undefined || staff === undefined) throw new Error('not seeded')
  const { attributes } = photographers
  tree.put([
    { ...entry, attributes: { ...entry.attributes, uid: ['b.tolland-marsh'] } },
    { ...photographers, attributes: { ...attributes, member: [...(attributes['member'] ?? []), staff.dn] } },
  ])
  tree.remove(`uid=y.archer,ou=people,${baseDn}`)
  const id = (await bench.estate()).directories[0]?.id ?? ''
  await rows(scope(), 'update directories set read_at = null returning 1')
  await bench.until(async () => (await bench.estate()).directories[0]?.readAt !== null, 'it is read anew')
  expect(Date.parse((await bench.estate()).directories[0]?.certificateEndsAt ?? '')).toBeGreaterThan(Date.now())
  expect((await principal('b.tolland-marsh'))?.id).toBe(before?.id)
  expect(await principal('y.archer')).toMatchObject({ directoryId: id, goneSince: expect.any(String) })
  const ringed = await somebody(scope(), (await principal('photographers'))?.id ?? '')
  expect(ringed?.groups.map(({ account }) => account).sort()).toEqual(['photo-studio', 'staff'])
  tree.put([{ ...photographers, attributes }])
})

test('a directory that is silent or late is told of; what was known of it stays', async () => {
  bench.fleet.faults.inject({ ...harmless, target: 'directory', kind: 'not-answering' })
  await rows(scope(), 'update directories set read_at = null returning 1')
  await bench.until(async () => (await bench.estate()).directories[0]?.state === 'not answering', 'it is told of')
  expect((await principal('a.brenn'))?.goneSince).toBeNull()
  bench.fleet.faults.clear()
  await bench.until(async () => (await bench.estate()).directories[0]?.state === 'answering', 'it is read again')
})

test('a service joins by an account that may, whose password is dropped; one that may not is refused', async () => {
  const bittern = (await bench.estate()).systems[0]?.id
  await bench.done('serve-files', {
    ...{ systemId: bittern, name: 'files.canal.marrowfield.example', firstAddress: '10.60.2.40/24' },
    ...{ nameServers: '', searchSuffixes: '' },
  })
  const joining = async (account: string, password: string) => ({
    fileServiceId: (await service())?.id,
    directoryId: (await bench.estate()).directories[0]?.id,
    joinAs: `uid=${account},ou=people,${baseDn}`,
    secretId: await secret(password, 'joining'),
  })
  const barred = await bench.carriedOut('join-directory', await joining('a.brenn', 'a.brenn-demo'))
  expect(barred.refusal?.why).toContain('insufficient access rights')
  const made = await bench.done('join-directory', await joining('v.grier', 'v.grier-demo'))
  expect(await evidence(made.id)).toEqual([
    `files.canal.marrowfield.example belongs to ${baseDn}`,
    'It has an account of its own there',
  ])
  expect(await rows(scope(), `select 1 from kept_secrets where purpose = 'joining'`)).toEqual([])
  expect(await service()).toMatchObject({ joinedTo: baseDn, joinedAs: `cn=files,ou=computers,${baseDn}` })
})

test('a share over SMB: each grant is tried by one of those whom it is for, and by somebody who has none', async () => {
  const [studio, retouchers] = [await principal('photo-studio'), await principal('retouchers')]
  const photographers = await principal('photographers')
  const grant = (found: typeof studio, right: string) => ({ who: found?.durableId, name: found?.name, right })
  const estate = await bench.estate()
  const asked = (more: object = {}) => ({
    ...{ fileServiceId: estate.fileServices[0]?.id, name: 'photo-studio', size: '64 MiB', classId: '', over: 'SMB' },
    poolId: estate.pools.find(({ name }) => name === 'bittern-bulk-01')?.id,
    ...{ ownerUid: 0, ownerGid: 3100, mode: '2770', rules: [] },
    grants: [grant(studio, 'change'), grant(retouchers, 'read'), grant(photographers, 'read')],
    ...{ showsEarlier: true, labels: 'photos\nstudio', warnPercent: 80 },
    ...more,
  })
  const nobody = [{ who: 'no-such', name: 'nobody', right: 'read' }]
  expect(await bench.refused('provision-share', asked({ grants: nobody }))).toEqual(['grants-known'])
  const made = await bench.done('provision-share', asked())
  const found = await evidence(made.id)
  expect(found.filter(claim => claim.startsWith('NOT'))).toEqual([])
  expect(found.slice(0, 2)).toEqual([
    'The system states the share as it was asked for',
    'keep-1 reaches photo-studio over SMB',
  ])
  expect(found.join('\n')).toMatch(/q\.holt is refused a write over SMB/)
  expect(found.slice(-2)).toEqual([
    'The system states that its snapshots are shown',
    'It has the labels and the warning that were asked for',
  ])
  const [share] = (await bench.estate([{ kind: 'shares', field: 'name', values: ['photo-studio'] }])).shares
  expect(share).toMatchObject({
    protocols: ['SMBv3_1_1'],
    grants: [{ right: 'change' }, { right: 'read' }, { right: 'read' }],
    ...{ snapshotDirectory: { isShown: true }, labels: ['photos', 'studio'], warnPercent: 80 },
  })
  expect(await bench.refused('provision-share', asked({ name: 'Photo-Studio' }))).toEqual(['no-twin'])
  expect(await bench.refused('leave-directory', { fileServiceId: share?.fileServiceId })).toEqual(['nothing-over-smb'])

  const [host] = estate.hosts
  const tryAs = async (account: string) => {
    const numbers = { uid: 0, gid: 0, groups: [] }
    const personId = (await principal(account))?.id
    const change = await bench.done('test-share', {
      shareId: share?.id,
      hostId: host?.id,
      ...numbers,
      personId,
      isRestarted: false,
    })
    // Behind the way there: its name, its port, and that it is reached.
    return (await evidence(change.id)).slice(3)
  }
  expect(await tryAs('d.warrick')).toEqual([
    'd.warrick writes a file over SMB',
    'd.warrick reads back what was written',
  ])
  expect(await tryAs('g.ashby')).toEqual(['g.ashby is refused a write over SMB'])
  // Refused as a member of the one group, whatever the other grants.
  const rights = { shareId: share?.id, ownerUid: 0, ownerGid: 3100, mode: '2770', rules: [] }
  await bench.done('set-share-rights', { ...rights, grants: [grant(studio, 'full'), grant(retouchers, 'none')] })
  expect(await tryAs('d.warrick')).toEqual(['d.warrick is refused a write over SMB'])
  expect(await tryAs('f.quarles')).toEqual([
    'f.quarles writes a file over SMB',
    'f.quarles reads back what was written',
  ])
  // What is left out stays as it is.
  await bench.done('set-share-rights', { ...rights, mode: '2750' })
  expect(await tryAs('f.quarles')).toEqual(['f.quarles is refused a write over SMB'])
})

test('who is granted for the whole service may use each of its shares, and loses it again by one change back', async () => {
  const [share] = (await bench.estate([{ kind: 'shares', field: 'name', values: ['photo-studio'] }])).shares
  const retouchers = await principal('retouchers')
  const own = { shareId: share?.id, ownerUid: 0, ownerGid: 3100, mode: '2777', rules: [] }
  await bench.done('set-share-rights', { ...own, grants: [] })
  const grants = [{ who: retouchers?.durableId, name: retouchers?.name, right: 'change' }]
  const made = await bench.done('set-service-grants', { fileServiceId: share?.fileServiceId, grants })
  const found = await evidence(made.id)
  expect(found.slice(0, 2)).toEqual([
    'The system states the grants as they were asked for',
    'Each of its shares over SMB states them as its service’s',
  ])
  // The share itself grants nothing: who writes does so by what stands at the service, and who has none there is refused.
  expect(found).toContain('d.warrick writes a file over SMB')
  const trial = { shareId: share?.id, hostId: (await bench.estate()).hosts[0]?.id, uid: 0, gid: 0, groups: [] }
  const other = { ...trial, personId: (await principal('f.quarles'))?.id, isRestarted: false }
  const refused = await bench.done('test-share', other)
  expect(await evidence(refused.id)).toContain('f.quarles is refused a write over SMB')
  const now = async () => (await bench.estate([{ kind: 'shares', field: 'name', values: ['photo-studio'] }])).shares[0]
  expect(await now()).toMatchObject({ grants: [], serviceGrants: grants })
  expect(await service()).toMatchObject({ grants })
  await bench.done('set-service-grants', {
    fileServiceId: share?.fileServiceId,
    grants: JSON.parse(String(made.facts['before'])),
  })
  expect(await now()).toMatchObject({ serviceGrants: [] })
})
