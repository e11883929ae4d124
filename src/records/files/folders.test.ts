import { randomBytes } from 'node:crypto'
import { comparePaths, FileReporter, makeSegment, type ListedFile } from '@/core/filetree'
import { sampleFileService, sampleShare } from '@/core/estate/testing/samples'
import { row, run } from '../database'
import { nextReading, storeInventory } from '../inventory'
import { objects } from '../objects'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import { beginScan, endScan, foldersIn, keepScanPart } from '.'

let records: Awaited<ReturnType<typeof freshDatabase>>
let shareId = ''
const scope = () => ({ database: records.database })
beforeAll(async () => {
  records = await freshDatabase()
  const { systemId } = await enrolled(scope(), randomBytes(32), 'heron')
  const found = sampleInventory({
    fileServices: [{ ...sampleFileService(), locator: '/f' }],
    shares: [{ ...sampleShare(), fileServiceLocator: '/f', volumeLocator: '/v/0' }],
  })
  await storeInventory(records.database, systemId, found, await nextReading(scope()), undefined)
  shareId = (await objects(scope(), 'shares'))[0]?.id ?? ''
})
afterAll(() => records.close())

const file = (path: string, bytes = 1): ListedFile => ({
  ...{ path, bytes, uid: 0, gid: 0, modifiedAt: 1_700_000_000_000 },
  kind: undefined,
})
/** A walk that has found these, in parts of two files. @returns its id */
async function walked(key: string, paths: readonly ListedFile[]): Promise<string> {
  const sorted = [...paths].sort((a, b) => comparePaths(a.path, b.path))
  const { id } = await beginScan(scope(), { shareId, hostName: 'h', seenAs: 'root', at: new Date() }, key)
  for (let part = 0; part * 2 < sorted.length; part += 1)
    await keepScanPart(scope(), id, part, makeSegment(sorted.slice(part * 2, part * 2 + 2)), '')
  const report = new FileReporter(0).report()
  await endScan(scope(), id, { report, twins: [], at: new Date() })
  return id
}
const page = { offset: 0, limit: 100 }

test('a walk’s folders are listed level by level, the largest first, page by page', async () => {
  const scan = await walked('one', [
    file('/a/b/1', 5),
    file('/a/b/2', 6),
    file('/a/3', 1),
    file('/z/4', 40),
    file('/5'),
  ])
  const top = await foldersIn(scope(), scan, 0, page)
  expect([top.total, top.items.map(({ name, bytes, files, folders }) => [name, bytes, files, folders])]).toEqual([
    2,
    [
      ['z', 40, 1, 0],
      ['a', 12, 3, 1],
    ],
  ])
  const second = await foldersIn(scope(), scan, 0, { offset: 1, limit: 1 })
  expect(second.items).toMatchObject([{ name: 'a', newestAt: '2023-11-14T22:13:20.000Z' }])
  expect((await foldersIn(scope(), scan, second.items[0]?.id ?? 0, page)).items).toMatchObject([
    { name: 'b', bytes: 11 },
  ])
  expect(await foldersIn(scope(), scan, 999, page)).toEqual({ total: 0, items: [] })
  expect((await foldersIn(scope(), '00000000-0000-7000-8000-000000000000', 0, page)).total).toBe(0)
})

test('whatever names hold ends no row, and no path is too long', async () => {
  const names = ['tab\tand\nline', '\\N', '\\.', 'quote\'";--', '😀', 'cr\r', 'x'.repeat(255)]
  const deep = `/${Array.from({ length: 15 }, () => 'y'.repeat(255)).join('/')}/end`
  const scan = await walked('two', [...names.map(name => file(`/${name}/f`)), file(deep)])
  const { items, total } = await foldersIn(scope(), scan, 0, page)
  expect(total).toBe(8)
  expect(new Set(items.map(({ name }) => name))).toEqual(new Set([...names, 'y'.repeat(255)]))
  const count = await row<{ n: number }>(scope(), 'select count(*)::int as n from scan_folders where scan_id = $1', [
    scan,
  ])
  expect(count?.n).toBe(1 + names.length + 15)
})

test('only the latest walk keeps its folders, and a walk that is ended twice keeps them once', async () => {
  const scan = await walked('three', [file('/a/1')])
  await walked('three', [file('/a/1')])
  const kept = await row<{ n: number; scans: number }>(
    scope(),
    'select count(*)::int as n, count(distinct scan_id)::int as scans from scan_folders',
  )
  expect(kept).toEqual({ n: 2, scans: 1 })
  await run(scope(), 'delete from file_scans where id = $1', [scan])
  expect((await foldersIn(scope(), scan, 0, page)).total).toBe(0)
})
