import fc from 'fast-check'
import { judgeWrite, quotaIndex, quotaTree, type Quota } from '.'

const share = { sizeBytes: 32_000n, usedBytes: 28_200n }
const quota = (path: string, more: Partial<Quota> = {}): Quota => ({
  ...{ path, of: 'tree', id: null, softBytes: null, hardBytes: null, graceDays: 7 },
  ...more,
})
const day = 86_400_000
const now = Date.UTC(2026, 4, 20)
const iso = (at: number) => new Date(at).toISOString()
const used = (index: number, key: string, bytes: number, overSoftSince: string | null = null) => ({
  ...{ index, key, usedBytes: BigInt(bytes), overSoftSince },
})

const quotas = [
  quota('/departments', { softBytes: 18_000n, hardBytes: 20_000n }),
  quota('/departments/conservation', { softBytes: 8000n, hardBytes: 10_000n }),
  quota('/departments/sound', { hardBytes: 4000n }),
  quota('/people', { of: 'each directory', hardBytes: 500n }),
  quota('/', { of: 'user', hardBytes: 1n }),
]
const usage = [
  used(0, '/departments', 19_100, iso(now - 4 * day)),
  used(1, '/departments/conservation', 8400),
  used(2, '/departments/sound', 2700),
  used(3, '/people/ines', 212),
  used(3, '/people/tobin', 500),
  used(4, 'user 7', 9),
]

test('directories stand beneath the one in which they lie, the fullest first, each bar behind its siblings’', () => {
  const tree = quotaTree(share, quotas, usage, now)
  expect(tree.map(({ path, depth, fromBytes }) => [path, depth, Number(fromBytes)])).toEqual([
    ['/', 0, 0],
    ['/departments', 1, 0],
    ['/departments/conservation', 2, 0],
    ['/departments/sound', 2, 8400],
    ['/people/tobin', 1, 19_100],
    ['/people/ines', 1, 19_600],
  ])
  expect(tree.map(({ name }) => name)).toEqual([
    '/',
    'departments',
    'conservation',
    'sound',
    'people/tobin',
    'people/ines',
  ])
})

test('what is left is the least of all above, and whose limit that is is told', () => {
  const tree = quotaTree(share, quotas, usage, now)
  expect(tree.map(({ leftBytes, stoppedBy }) => [Number(leftBytes), stoppedBy])).toEqual([
    [3800, '/'],
    [900, '/departments'],
    [900, '/departments'],
    [900, '/departments'],
    [0, '/people/tobin'],
    [288, '/people/ines'],
  ])
})

test('a soft limit binds once its grace is over, and not before', () => {
  const at = (later: number) => quotaTree(share, quotas, usage, now + later).find(({ path }) => path === '/departments')
  expect(at(0)).toMatchObject({ leftBytes: 900n, graceEndsAt: now + 3 * day })
  expect(at(3 * day)).toMatchObject({ leftBytes: 0n, stoppedBy: '/departments' })
})

test('a share without quotas is its root alone; a quota of all of it and its size count together', () => {
  expect(quotaTree(share, [], [], now)).toMatchObject([{ path: '/', leftBytes: 3800n, stoppedBy: '/' }])
  const whole = [quota('/', { softBytes: 20_000n, hardBytes: 30_000n })]
  expect(quotaTree(share, whole, [used(0, '/', 1)], now)).toMatchObject([
    { path: '/', usedBytes: 28_200n, hardBytes: 30_000n, softBytes: 20_000n, leftBytes: 1800n },
  ])
})

test('usage of a quota that is no longer there is passed over, and one that nobody has written to stands empty', () => {
  expect(quotaTree(share, quotas.slice(0, 1), usage, now).map(({ path }) => path)).toEqual(['/', '/departments'])
  expect(quotaTree(share, [quota('/new/', { hardBytes: 100n })], [], now)[1]).toMatchObject({
    ...{ path: '/new', usedBytes: 0n, leftBytes: 100n, stoppedBy: '/new' },
  })
})

test('what is told to be left is what a write is judged by', () => {
  const paths = ['/a', '/a/b', '/a/b/c', '/d', '/d/e']
  const bytes = fc.integer({ min: 0, max: 1000 })
  const limit = fc.option(fc.integer({ min: 1, max: 1000 }))
  const drawn = fc.array(fc.record({ path: fc.constantFrom(...paths), hard: limit, written: bytes }), { maxLength: 6 })
  fc.assert(
    fc.property(drawn, all => {
      const own = all.map(({ path, hard }) => quota(path, { hardBytes: hard === null ? null : BigInt(hard) }))
      // Everything in one directory is counted once: quotas of the same one have written the same.
      const writtenTo = new Map(all.map(({ path, written }) => [path, written]))
      const uses = all.map(({ path }, index) => used(index, path, writtenTo.get(path) ?? 0))
      const wide = { sizeBytes: 10n ** 9n, usedBytes: 0n }
      const index = quotaIndex(own)
      for (const node of quotaTree(wide, own, uses, now)) {
        if (node.path === '/') continue
        const { leftBytes } = judgeWrite(
          index,
          key => {
            const path = key.slice(key.indexOf('/') + 1)
            return { bytes: BigInt(writtenTo.get(path) ?? 0), overSoftSince: null }
          },
          { path: `${node.path}/file`, uid: 1, gid: 1, addedBytes: 0n, at: now },
        )
        expect(node.stoppedBy === '/' ? null : node.leftBytes).toBe(leftBytes)
      }
    }),
  )
})
