/** @jest-environment jsdom */
import { screen, within } from '@testing-library/react'
import { FileReporter, makeSegment, type ListedFile } from '@/core/filetree'
import { sampleFileService, sampleShare } from '@/core/estate/testing/samples'
import type { FileScan, FilesPage } from '@/core/views'
import { answering, shown, wordsOf } from '../../testing/browser'
import { FilesSheet, SliceMargin, sliceWords } from '.'

const now = Date.parse('2026-11-01T00:00:00Z')
const file = (path: string, bytes: number, more: Partial<ListedFile> = {}): ListedFile => ({
  ...{ path, bytes, uid: 2001, gid: 300, modifiedAt: now - 86_400_000, kind: undefined },
  ...more,
})
function scanOf(id: string, ...files: readonly ListedFile[]): FileScan {
  const reporter = new FileReporter(now)
  reporter.add(makeSegment(files))
  return {
    id,
    at: new Date(now).toISOString(),
    hostName: 'scan-1',
    seenAs: 'uid 0',
    report: reporter.report(),
    twins: [],
  }
}
const gib = 1024 ** 3
const scan = {
  ...scanOf(
    '2',
    file('/a/1.tif', 6 * gib, { kind: 'picture' }),
    file('/a/2.tif', 6 * gib, { kind: 'picture' }),
    file('/b/3.dat', 4 * gib, { uid: 7 }),
  ),
  twins: [{ sha256: 'x', bytes: 1024, paths: ['/a/x', '/b/x'] }],
}
const page = (more: Partial<FilesPage> = {}): FilesPage => ({
  ...{ share: sampleShare(), service: sampleFileService(), scan, before: null, owners: { 2001: 'Alva Brenn' } },
  slice: { text: 'kind:picture', files: 2, bytes: 12 * gib, largest: [file('/a/1.tif', 6 * gib, { kind: 'picture' })] },
  ...more,
})

test('every layer and owner says how much it holds and opens to its files', () => {
  answering(() => ({ body: { total: 0, items: [] } }))
  const { container } = shown(<FilesSheet page={page()} scan={scan} />)
  const href = (name: RegExp) => screen.getByRole('link', { name }).getAttribute('href')
  expect(href(/^picture/)).toBe('?slice=kind%3Apicture')
  expect(href(/^not known/)).toBe('?slice=kind%3Aunknown')
  expect(href(/^Alva Brenn/)).toBe('?slice=owner%3A2001')
  expect(href(/^uid 7/)).toBe('?slice=owner%3A7')
  expect(screen.getByRole('link', { name: /^picture/ }).getAttribute('aria-current')).toBe('true')
  const words = wordsOf(container)
  expect(words).toContain('12 GiB 75.0 %')
  expect(words).toContain('2 × 1 KiB')
  expect(words).toContain('One size occurs more than once among files above 4 GiB')
})

test('what has changed since the walk before is told by folder, and that nothing has', () => {
  answering(() => ({ body: { total: 0, items: [] } }))
  const before = scanOf('1', file('/a/1.tif', 6 * gib), file('/b/3.dat', 5 * gib))
  const { container } = shown(<FilesSheet page={page({ before })} scan={scan} />)
  expect(wordsOf(container)).toMatch(/\/a\+6 GiB, \+1 files/)
  expect(wordsOf(container)).toMatch(/\/b−1 GiB, \+0 files/)
  const { container: same } = shown(<FilesSheet page={page({ before: scan })} scan={scan} />)
  expect(wordsOf(same)).toContain('Nothing has grown or shrunk since')
})

test('the files of a part stand in the margin with owner, kind and day, and are given as CSV', () => {
  const { container } = shown(<SliceMargin page={page()} words={sliceWords('kind:picture', {})} />)
  expect(wordsOf(container)).toContain('By their first bytes: picture2 files, 12 GiB. The 1 largest are here.')
  expect(wordsOf(container)).toContain('1.tif6 GiB/a/ · Alva Brenn · picture2026-10-31')
  expect(screen.getByRole('button', { name: 'CSV' }).hasAttribute('disabled')).toBe(false)
})

test.each([
  ['all', 'The largest'],
  ['owner:2001', 'Of Alva Brenn'],
  ['age:0', 'Written in the last 7 days'],
  ['age:5', 'Not written for 3 years and more'],
  ['size:1', '4 KiB to 1 MiB'],
  ['folder:', 'At the root itself'],
  ['twins:1024', 'Of 1 KiB each'],
  ['misnamed', 'Named as another kind than they are'],
  ['kind:unknown', 'Of a kind that is not known'],
])('the part %s is called "%s"', (text, words) => expect(sliceWords(text, { 2001: 'Alva Brenn' })).toBe(words))

const folder = (id: number, name: string, bytes: number, folders = 0) => ({
  ...{ id, name, bytes, folders, files: 3 },
  newestAt: new Date(now).toISOString(),
})

test('folders open one below another, are read when they are, and lead to their files', async () => {
  const levels: Readonly<Record<string, object>> = {
    'parent=0&offset=0': { total: 3, items: [folder(4, 'a', 12 * gib, 1), folder(1, 'b', 4 * gib)] },
    'parent=0&offset=2': { total: 3, items: [folder(9, 'c <b>', 0)] },
    'parent=4&offset=0': { total: 1, items: [folder(5, 'deep', 8 * gib)] },
  }
  const asked = answering(({ path }) => {
    const at = Object.keys(levels).find(query => path.includes(`${query}&`))
    return at === undefined ? { status: 404, body: {} } : { body: levels[at] }
  })
  const { user } = shown(<FilesSheet page={page()} scan={scan} />)
  const tree = await screen.findByRole('list', { name: 'Folders' })
  const first = await within(tree).findByRole('link', { name: /^a/ })
  expect(first.getAttribute('href')).toBe('?slice=folder%3A%2Fa')
  expect(within(tree).queryByRole('button', { name: 'What lies in b' })).toBeNull()
  const opener = within(tree).getByRole('button', { name: 'What lies in a' })
  opener.focus()
  await user.keyboard('{ArrowRight}')
  const deep = await within(tree).findByRole('link', { name: 'deep' })
  expect(deep.getAttribute('href')).toBe('?slice=folder%3A%2Fa%2Fdeep')
  expect(wordsOf(tree)).toContain('8 GiB50.0 %')
  await user.keyboard('{ArrowLeft}')
  expect(within(tree).queryByRole('link', { name: 'deep' })).toBeNull()
  await user.click(within(tree).getByRole('button', { name: 'show the next of 1 smaller' }))
  expect((await within(tree).findByRole('link', { name: 'c <b>' })).getAttribute('href')).toBe(
    '?slice=folder%3A%2Fc%20%3Cb%3E',
  )
  expect(asked.filter(({ path }) => path.includes('parent=4'))).toHaveLength(1)
})

test('of a walk from before its folders were summed up, and of one that cannot be asked, it says so', async () => {
  answering(() => ({ body: { total: 0, items: [] } }))
  const { unmount } = shown(<FilesSheet page={page()} scan={scan} />)
  expect(await screen.findByText(/walk through them again/)).toBeTruthy()
  unmount()
  answering(() => ({ status: 503, body: { code: 'x', what: 'The database does not answer.', why: '', remedy: '' } }))
  shown(<FilesSheet page={page()} scan={{ ...scan, id: 'other' }} />)
  expect(await screen.findByText('The database does not answer.')).toBeTruthy()
})
