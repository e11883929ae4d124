import fc from 'fast-check'
import { judgeWrite, quotaIndex, quotasFor, type Quota } from '@/core/filetree'
import { refusedWhy, usage } from './limits'

const places = ['/a', '/a/b', '/c', '/']
const quotas = fc.record({
  path: fc.constantFrom(...places),
  of: fc.constantFrom<Quota['of']>('tree', 'each directory', 'user', 'group', 'project'),
  id: fc.constantFrom(null, 1, 2),
  hard: fc.integer({ min: 0, max: 120 }),
})
const files = fc.record({
  path: fc.constantFrom('a/x', 'a/b/y', 'a/b/d/z', 'c/x', 'w'),
  uid: fc.constantFrom(1, 2),
  gid: fc.constantFrom(1, 2),
  length: fc.integer({ min: 0, max: 60 }),
})

/** As a system takes it and as core takes it: a project's other directory lies beside its first. */
function both({ path, of, id, hard }: { path: string; of: Quota['of']; id: number | null; hard: number }, at: number) {
  const rest = {
    ...{ path, of, graceDays: 7, id: of === 'user' || of === 'group' ? id : null },
    ...(of === 'project' ? { project: { name: `p${at}`, alsoAt: path === '/c' ? ['/a/b'] : [] } } : {}),
  }
  return {
    theirs: { ...rest, softBytes: null, hardBytes: `${hard}` },
    ours: { ...rest, softBytes: null, hardBytes: BigInt(hard) },
  }
}

test('a file server refuses what core says that it refuses, and counts as core counts', () => {
  fc.assert(
    fc.property(fc.array(quotas, { maxLength: 6 }), fc.array(files, { maxLength: 5 }), files, (some, held, wanted) => {
      const pairs = some.map(both)
      const limits = { quotas: pairs.map(({ theirs }) => theirs), fileRules: [], overSoft: {} }
      // Each file is a new one: what replaces a file is counted by what it adds.
      const standing = held.map((each, at) => ({ ...each, path: `${each.path}${at}` }))
      const entries = standing.map(({ path, length, uid, gid }) => ({ path, length, marks: { uid, gid } }) as never)
      const index = quotaIndex(pairs.map(({ ours }) => ours))
      const used = new Map<string, bigint>()
      for (const { path, uid, gid, length } of standing)
        for (const { key } of quotasFor(index, { path: `/${path}`, uid, gid }))
          used.set(key, (used.get(key) ?? 0n) + BigInt(length))
      expect(new Map(usage(limits, entries).map(each => [`${each.index}/${each.of}`, BigInt(each.bytes)]))).toEqual(
        used,
      )
      const { uid, gid, length } = wanted
      const asked = { path: `/${wanted.path}`, uid, gid }
      const judged = judgeWrite(index, key => ({ bytes: used.get(key) ?? 0n, overSoftSince: null }), {
        ...asked,
        addedBytes: BigInt(length),
        at: 0,
      })
      const refused = refusedWhy(limits, entries, { ...asked, bytes: length, head: '', now: 0 })
      expect(refused === undefined).toBe(judged.allowed)
    }),
    { numRuns: 300 },
  )
})
