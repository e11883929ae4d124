import { comparePaths, FolderSums, makeSegment, type FolderSum, type ListedFile } from '.'

const file = (path: string, bytes = 1, modifiedAt = 0): ListedFile => ({
  ...{ path, bytes, modifiedAt, uid: 0, gid: 0 },
  kind: undefined,
})
/** What is told of files in the order of their paths, in segments of some size. */
function sumsOf(files: readonly ListedFile[], size = 1000): FolderSum[] {
  const sorted = [...files].sort((a, b) => comparePaths(a.path, b.path))
  const sums = new FolderSums()
  const found: FolderSum[] = []
  for (let at = 0; at < sorted.length; at += size) found.push(...sums.add(makeSegment(sorted.slice(at, at + size))))
  return [...found, ...sums.end()]
}

test('each folder is told once, with all that lies below it, and the root last', () => {
  const found = sumsOf([
    file('/a/1', 5, 9000),
    file('/a/b/x', 7, 4000),
    file('/a/c', 1),
    file('/z', 2),
    file('/a-b/q', 3),
  ])
  expect(found.map(({ name, files, bytes, folders, newestAt }) => [name, files, bytes, folders, newestAt])).toEqual([
    ['a-b', 1, 3, 0, 0],
    ['b', 1, 7, 0, 4000],
    ['a', 3, 13, 1, 9000],
    ['', 5, 18, 2, 9000],
  ])
  expect(found.at(-1)).toMatchObject({ id: 0, parentId: null })
})

test('a tree of nothing is its root', () =>
  expect(sumsOf([])).toEqual([expect.objectContaining({ id: 0, files: 0, folders: 0 })]))

test('whatever the names and wherever segments end, the sums are those of adding up file by file', () => {
  let seed = 7
  const next = (below: number) => (seed = (seed * 48271) % 2147483647) % below
  const names = ['a', 'a-', 'a.b', 'ä', '😀', 'b c', '..', 'a'.repeat(40)]
  for (let round = 0; round < 60; round += 1) {
    const paths = new Set<string>()
    for (let count = next(60); count >= 0; count -= 1)
      paths.add(`/${Array.from({ length: 1 + next(5) }, () => names[next(names.length)] ?? '').join('/')}${next(9)}`)
    const files = [...paths].map(path => file(path, next(1000), next(1000) * 1000))
    const byPath = new Map<string, number>()
    for (const { path, bytes } of files)
      for (let at = path.lastIndexOf('/'); at >= 0; at = path.lastIndexOf('/', at - 1)) {
        byPath.set(path.slice(0, at), (byPath.get(path.slice(0, at)) ?? 0) + bytes)
        if (at === 0) break
      }
    const found = sumsOf(files, 1 + next(20))
    const byId = new Map(found.map(each => [each.id, each]))
    const pathOf = ({ parentId, name }: FolderSum): string => {
      const above = parentId === null ? undefined : byId.get(parentId)
      return above === undefined ? '' : `${pathOf(above)}/${name}`
    }
    expect(new Map(found.map(each => [pathOf(each), each.bytes]))).toEqual(byPath)
    for (const { id, folders } of found) expect(found.filter(each => each.parentId === id)).toHaveLength(folders)
  }
})
