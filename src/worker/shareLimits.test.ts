import { one } from '@/core/estate'
import { filesPage } from '@/records/queries'
import { foldersIn, scansOf } from '@/records/files'
import { server, sharing } from './testing/sharing'

let bench: Awaited<ReturnType<typeof sharing>>
let shareId = ''
beforeAll(async () => {
  bench = await sharing()
  shareId = await bench.shared()
})
afterAll(() => bench.close())

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
  expect(await bench.evidence(change.id)).toEqual([
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
  const used = async () => (await bench.estate([one('shares', shareId)])).shares[0]?.quotaUsage ?? []
  await bench.until(async () => (await used()).some(({ key }) => key === '/people/ines'), 'the next reading')
  expect(await used()).toMatchObject([
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
  expect(await bench.evidence(limited.id)).toContainEqual(expect.stringContaining('that project portraits leaves'))
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
  expect(await bench.evidence(change.id)).toEqual([
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
  expect(await bench.evidence(hidden.id)).toContain('keep-1 does not find before-the-tidying')
  await bench.agent('register-1', '/mounts/remove', { path: '/mnt/ct' })
})

test('a host walks through all files: what it finds is kept, and who may not look finds nothing', async () => {
  const as = { uid: 2001, gid: 300, groups: [] }
  await bench.agent('register-1', '/shares', { server, share: '/ct-archive', path: '/mnt/walk' })
  for (const name of ['a/1.tif', 'b/2.tif'])
    await bench.agent('register-1', '/shares/write', { path: `/mnt/walk/${name}`, as, lengthBytes: 90_000, seed: name })
  await bench.agent('register-1', '/mounts/remove', { path: '/mnt/walk' })
  const look = { shareId, hostId: bench.ids['register-1'], personId: '', uid: 2001, gid: 300 }
  const change = await bench.done('report-files', look)
  expect(await bench.evidence(change.id)).toEqual([
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
