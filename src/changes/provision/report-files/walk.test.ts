import { sampleId, sampleShare } from '@/core/estate/testing/samples'
import { fileAt, type FileSegment } from '@/core/filetree'
import type { ChangePorts, FilePart, ListedPage } from '@/ports'
import { walked, type Walk } from './walk'

const walk: Walk = {
  ...{ shareId: sampleId(71), hostName: 'scan-1', agentAddress: 'http://a', server: 'files.example' },
  ...{ exported: '/scans', as: { uid: 0, gid: 0, groups: [] }, seenAs: 'uid 0' },
}
const file = (path: string, bytes = 10) => ({ path, bytes, uid: 1, gid: 2, modifiedAt: 0, head: '' })

/** Ports whose host tells pages as it likes, and records that keep them. */
function portsThat(
  list: (after: string) => ListedPage | { readonly refused: string },
  sums: Readonly<Record<string, string>> = {},
) {
  const parts: FileSegment[] = []
  const kept = { ended: undefined as unknown, last: '', told: [] as number[], read: [] as string[] }
  const ports = {
    now: async () => new Date(0),
    estate: async () => ({ shares: [sampleShare({ usedBytes: 1000n })] }),
    progress: async (ratio: number) => void kept.told.push(ratio),
    host: async () => ({
      shares: {
        list: async (_path: string, _as: unknown, after: string) => list(after),
        read: async (path: string, _as: unknown, part?: FilePart) => {
          const name = path.split('/').at(-1) ?? ''
          kept.read.push(part === undefined ? name : `${name}+${part.offsetBytes / 1024 ** 2}`)
          const place = part === undefined ? 0 : part.offsetBytes / part.lengthBytes
          return { sha256: sums[name]?.split(' ')[place] ?? path }
        },
      },
    }),
    records: {
      fileScans: {
        begin: async () => ({
          ...{ id: 's', at: new Date(0), parts: parts.length, lastPath: kept.last },
          ...{ files: parts.reduce((sum, each) => sum + each.count, 0), bytes: 0 },
        }),
        keepPart: async (_id: string, part: number, segment: FileSegment, lastPath: string) => {
          parts[part] = segment
          kept.last = lastPath
        },
        parts: async function* () {
          yield* parts
        },
        end: async (_id: string, found: unknown) => void (kept.ended = found),
      },
    },
  } as unknown as ChangePorts
  const paths = () => parts.flatMap(each => Array.from({ length: each.count }, (_, index) => fileAt(each, index).path))
  return { ports, kept, paths }
}
const pages = (...all: readonly (readonly string[])[]) => {
  let at = 0
  return () => {
    const page = { files: (all[at] ?? []).map(path => file(path)), isLast: at >= all.length - 1 }
    at += 1
    return page
  }
}

test('page after page is kept, and how far it is follows from what was found', async () => {
  const { ports, kept, paths } = portsThat(pages(['a/1', 'a/2'], ['b/1']))
  await walked(walk, 'key', ports)
  expect(paths()).toEqual(['/a/1', '/a/2', '/b/1'])
  expect(kept.told).toEqual([0.02, 0.03])
  expect(kept.ended).toMatchObject({ report: { files: 3, bytes: 30 } })
})

test.each([
  ['the same page again', pages(['a', 'b'], ['a', 'b'])],
  ['an order that goes back', pages(['b', 'a'])],
  ['one path twice', pages(['a', 'a'])],
  ['empty pages without an end', pages([], [], [])],
])('a host that tells %s is not followed for ever', async (_, list) => {
  const { ports, kept } = portsThat(list)
  await expect(walked(walk, 'key', ports)).rejects.toMatchObject({ code: 'change.walk-ended' })
  expect(kept.ended).toBeUndefined()
})

test('who may not look is told so, by the server’s words', async () => {
  const { ports } = portsThat(() => ({ refused: 'permission denied' }))
  await expect(walked(walk, 'key', ports)).rejects.toThrow('did not walk')
})

test('a walk that was cut off goes on behind the last part that was kept', async () => {
  const asked: string[] = []
  const one = portsThat(after => {
    asked.push(after)
    return { files: ['b', 'c'].filter(path => path > after).map(path => file(path)), isLast: true }
  })
  await one.ports.records.fileScans.keepPart('s', 0, { ...(await emptyPart()), count: 0 }, 'b')
  await walked(walk, 'key', one.ports)
  expect([asked, one.paths()]).toEqual([['b'], ['/c']])
})

const emptyPart = async () => (await import('@/core/filetree')).makeSegment([])

test('files of one size are told apart by their sums; those that cannot be read are passed over', async () => {
  const size = 2 * 1024 ** 2
  const list = () => ({ files: ['a', 'b', 'c', 'd'].map(path => file(path, size)), isLast: true })
  const { ports, kept } = portsThat(list, { a: 'x', c: 'x', b: 'y' })
  await walked(walk, 'key', ports)
  expect(kept.ended).toMatchObject({ twins: [{ sha256: 'x', bytes: size, paths: ['/a', '/c'] }] })
})

test('large files are compared part by part: what differs is read no further, and what is larger still is not read at all', async () => {
  const size = 150 * 1024 ** 2
  const list = () => ({
    files: [...['a', 'b', 'c', 'd'].map(path => file(path, size)), file('x', 5 * 1024 ** 3), file('y', 5 * 1024 ** 3)],
    isLast: true,
  })
  const { ports, kept } = portsThat(list, { a: '1 2 3', b: '1 2 4', c: '1 2 3', d: '9 2 3' })
  await walked(walk, 'key', ports)
  expect(kept.ended).toMatchObject({ twins: [{ sha256: '1', bytes: size, paths: ['/a', '/c'] }] })
  expect(kept.read.join(' ')).toBe('a+0 b+0 c+0 d+0 a+64 b+64 c+64 a+128 b+128 c+128')
})
