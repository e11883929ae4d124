import { one, those } from '@/core/estate'
import { draftReverse } from '@/drafting'
import { factOf } from './testing/blocks'
import { rule, rules, server, sharing } from './testing/sharing'
import { tester } from './testing/workbench'

let bench: Awaited<ReturnType<typeof sharing>>
let shareId = ''
beforeAll(async () => {
  bench = await sharing()
})
afterAll(() => bench.close())

test('a file service answers at an address for each controller, found by its name', async () => {
  expect(await bench.refused('serve-files', bench.service({ systemId: bench.ids['heron'] }))).toEqual(['units'])
  expect(await bench.refused('serve-files', bench.service({ name: 'files', firstAddress: '10.60.2.40' }))).toEqual([
    'name',
    'address',
  ])
  const made = await bench.done('serve-files', bench.service())
  expect(await bench.evidence(made.id)).toEqual([
    'Controller A answers at 10.60.2.40',
    'Controller B answers at 10.60.2.41',
    `keep-1 looks up ${server} and reaches it`,
    'keep-1 reaches 10.60.2.40',
    'keep-1 reaches 10.60.2.41',
  ])
  expect(await bench.refused('serve-files', bench.service())).toEqual(['name-free', 'addresses-free'])
})

test('a share is proven from hosts for which different rules decide, as its owner and as a stranger', async () => {
  const change = await bench.done('provision-share', await bench.asked())
  expect(await bench.evidence(change.id)).toEqual([
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
  shareId = await bench.shareId()
  const { shares } = await bench.estate([one('shares', shareId)])
  expect(shares[0]).toMatchObject({ path: '/ct-archive', mode: '2770', ownerUid: 2001, sizeBytes: 67_108_864n })
  expect(await bench.refused('provision-share', await bench.asked())).toEqual(['name-free', 'volume-free'])
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
  expect(await bench.evidence(change.id)).toEqual([
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
  const claims = (await bench.evidence(change.id)).map(each =>
    each.replace(/ from \S+/, '').replace(/^\S+ mounts/, 'mounts'),
  )
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
  expect((await bench.evidence(below.id)).filter(each => each.includes('uid 2001'))).toEqual([
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

test('a share is taken away: no host can mount it, its files stay; then the service goes', async () => {
  const fileServiceId = (await bench.estate()).fileServices[0]?.id
  expect(await bench.refused('stop-file-service', { fileServiceId })).toEqual(['no-share'])
  expect(await bench.refused('remove-share', { shareId, confirmedName: 'another' })).toEqual(['name-typed'])
  await bench.done('label-share', { shareId, labels: 'archive\nscans', warnPercent: 80 })
  const { volumeId = '' } = (await bench.estate([one('shares', shareId)])).shares[0] ?? {}
  const [before] = (await bench.estate([one('shares', shareId)])).shares
  const change = await bench.done('remove-share', { shareId, confirmedName: 'ct-archive' })
  expect(await bench.evidence(change.id)).toContain('register-1 can no longer mount it')
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
