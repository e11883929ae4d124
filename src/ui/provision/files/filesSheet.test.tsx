/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { FileReporter, makeSegment, type ListedFile } from '@/core/filetree'
import { sampleFileService, sampleShare } from '@/core/estate/testing/samples'
import type { FileScan, FilesPage } from '@/core/views'
import { shown, wordsOf } from '../../testing/browser'
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

test('every layer, folder and owner says how much it holds and opens to its files', () => {
  const { container } = shown(<FilesSheet page={page()} scan={scan} />)
  const href = (name: RegExp) => screen.getByRole('link', { name }).getAttribute('href')
  expect(href(/^picture/)).toBe('?slice=kind%3Apicture')
  expect(href(/^not known/)).toBe('?slice=kind%3Aunknown')
  expect(href(/^\/a/)).toBe('?slice=folder%3A%2Fa')
  expect(href(/^Alva Brenn/)).toBe('?slice=owner%3A2001')
  expect(href(/^uid 7/)).toBe('?slice=owner%3A7')
  expect(screen.getByRole('link', { name: /^picture/ }).getAttribute('aria-current')).toBe('true')
  const words = wordsOf(container)
  expect(words).toContain('12 GiB 75.0 %')
  expect(words).toContain('2 × 1 KiB')
  expect(words).toContain('One size occurs more than once among larger files')
})

test('what has changed since the walk before is told by folder, and that nothing has', () => {
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
