import fc from 'fast-check'
import {
  contentOf,
  countsAlike,
  fileKinds,
  fitsPattern,
  headOf,
  judgeKind,
  judgeWrite,
  limitTroubles,
  nameThatFits,
  overSoftAfter,
  quotaIndex,
  quotasFor,
  type Quota,
  type QuotaUsed,
} from '.'

const day = 86_400_000
const quota = (path: string, more: Partial<Quota> = {}): Quota => ({
  path,
  of: 'tree',
  id: null,
  softBytes: null,
  hardBytes: 100n,
  graceDays: 7,
  ...more,
})
const write = (path: string, addedBytes: bigint, at = 0) => ({ path, uid: 2001, gid: 300, addedBytes, at })
const held = (all: Readonly<Record<string, QuotaUsed | bigint>>) => (key: string) => {
  const own = all[key]
  return typeof own === 'bigint' ? { bytes: own, overSoftSince: null } : own
}

test('a write is judged against every quota above it: trees, each directory, users and groups', () => {
  const index = quotaIndex([
    quota('/'),
    quota('/people/', { of: 'each directory' }),
    quota('/', { of: 'user' }),
    quota('/', { of: 'user', id: 7 }),
    quota('/people', { of: 'group', id: 300 }),
    quota('/elsewhere'),
  ])
  expect(quotasFor(index, write('/people/ines/a.txt', 1n)).map(({ key }) => key)).toEqual([
    '0//',
    '2/user 2001',
    '1//people/ines',
    '4/group 300',
  ])
  // What lies directly in the directory is in none of its directories.
  expect(quotasFor(index, write('/people/a.txt', 1n)).map(({ key }) => key)).toEqual([
    '0//',
    '2/user 2001',
    '4/group 300',
  ])
})

test('directories of a project are counted together, wherever they lie', () => {
  const loans = quota('/lab/loans', { of: 'project', project: { name: 'loans', alsoAt: ['/photos/loans/'] } })
  const index = quotaIndex([loans, quota('/lab', { hardBytes: 1000n })])
  const keys = (path: string) => quotasFor(index, write(path, 1n)).map(({ key }) => key)
  expect(keys('/lab/loans/a')).toEqual(['1//lab', '0/project loans'])
  expect(keys('/photos/loans/deep/a')).toEqual(['0/project loans'])
  expect(keys('/photos/loansheet')).toEqual([])
  const used = held({ '0/project loans': 60n })
  expect(judgeWrite(index, used, write('/photos/loans/a', 40n)).allowed).toBe(true)
  expect(judgeWrite(index, used, write('/lab/loans/a', 41n))).toMatchObject({ because: 'hard', leftBytes: 40n })
  expect(countsAlike(loans, quota('/moved', { of: 'project', project: { name: 'loans', alsoAt: [] } }))).toBe(true)
  expect(countsAlike(loans, quota('/lab/loans', { of: 'project', project: { name: 'x', alsoAt: [] } }))).toBe(false)
  expect(countsAlike(quota('/a'), quota('/b'))).toBe(false)
})

test('the last byte that fits is taken, the next is refused, and what is left is told', () => {
  const index = quotaIndex([
    quota('/', { hardBytes: 1000n }),
    quota('/people', { of: 'each directory', hardBytes: 100n }),
  ])
  const used = held({ '0//': 500n, '1//people/ines': 99n })
  expect(judgeWrite(index, used, write('/people/ines/a', 1n))).toMatchObject({
    allowed: true,
    decidedBy: { index: 1 },
    leftBytes: 1n,
  })
  expect(judgeWrite(index, used, write('/people/ines/a', 2n))).toMatchObject({
    allowed: false,
    because: 'hard',
    decidedBy: { index: 1, key: '1//people/ines' },
    leftBytes: 1n,
  })
  expect(judgeWrite(index, used, write('/people/tobin/a', 100n)).allowed).toBe(true)
  expect(judgeWrite(index, used, write('/people/ines/a', 0n)).allowed).toBe(true)
  expect(judgeWrite(quotaIndex([]), used, write('/a', 1n << 60n))).toEqual({
    allowed: true,
    decidedBy: null,
    because: null,
    leftBytes: null,
  })
})

test('a soft limit is passed for as long as its grace, to the millisecond, and binds from then on', () => {
  const index = quotaIndex([quota('/', { softBytes: 50n, hardBytes: 100n })])
  const used = held({ '0//': { bytes: 60n, overSoftSince: 1000 } })
  expect(judgeWrite(index, used, write('/a', 1n, 1000 + 7 * day - 1)).allowed).toBe(true)
  expect(judgeWrite(index, used, write('/a', 1n, 1000 + 7 * day))).toMatchObject({
    allowed: false,
    because: 'grace',
    leftBytes: 0n,
  })
  const first = quota('/', { softBytes: 50n })
  expect([
    overSoftAfter(first, 50n, 7, 9),
    overSoftAfter(first, 51n, null, 9),
    overSoftAfter(first, 51n, 7, 9),
  ]).toEqual([null, 9, 7])
})

test('whatever is written and taken away, no tree is ever above its hard limit', () => {
  const steps = fc.array(
    fc.record({ path: fc.constantFrom('/a/x', '/a/b/y', '/c/z', '/a/b/c/d'), bytes: fc.bigInt({ min: 0n, max: 60n }) }),
    { maxLength: 40 },
  )
  fc.assert(
    fc.property(steps, all => {
      const quotas = [
        quota('/', { hardBytes: 150n }),
        quota('/a', { hardBytes: 90n }),
        quota('/a', { of: 'each directory', hardBytes: 50n }),
      ]
      const index = quotaIndex(quotas)
      const used = new Map<string, bigint>()
      for (const { path, bytes } of all) {
        const asked = write(path, bytes)
        const bytesOf = (key: string) => ({ bytes: used.get(key) ?? 0n, overSoftSince: null })
        if (judgeWrite(index, bytesOf, asked).allowed)
          for (const { key } of quotasFor(index, asked)) used.set(key, (used.get(key) ?? 0n) + bytes)
      }
      for (const [key, bytes] of used) expect(bytes <= (quotas[Number(key.split('/')[0])]?.hardBytes ?? 0n)).toBe(true)
    }),
  )
})

test.each([
  ['*.mp3', 'Song.MP3', true],
  ['*.mp3', 'song.mp3.txt', false],
  ['a?c*', 'abcdef', true],
  ['a?c', 'ac', false],
  ['*', '', true],
  ['', '', true],
  ['*a*b*', 'xxaxxbxx', true],
  ['ü?', 'ÜX', true],
  ['?', '🦉', true],
])('pattern %j and name %j', (pattern, name, fits) => expect(fitsPattern(pattern, name)).toBe(fits))

test('a pattern that is meant to wander comes to its end', () =>
  expect(fitsPattern(`${'*a'.repeat(100)}b`, 'a'.repeat(255))).toBe(false))

test('a pattern fits what an expression of the same meaning fits', () => {
  const letters = fc.array(fc.constantFrom('a', 'b', '*', '?'), { maxLength: 8 }).map(all => all.join(''))
  const names = fc.array(fc.constantFrom('a', 'b'), { maxLength: 10 }).map(all => all.join(''))
  fc.assert(
    fc.property(letters, names, (pattern, name) => {
      const meant = new RegExp(`^${pattern.replaceAll('*', '.*').replaceAll('?', '.')}$`)
      expect(fitsPattern(pattern, name)).toBe(meant.test(name))
    }),
  )
})

test.each(fileKinds)('what is made to look like %s is told by its first bytes, whatever its name', kind => {
  expect(contentOf(headOf(kind))).toBe(kind)
  const rules = [
    { pattern: '*.txt', content: 'any', verdict: 'report' },
    { pattern: '*', content: kind, verdict: 'deny' },
  ] as const
  expect(judgeKind(rules, 'report.txt', headOf(kind))).toEqual({ allowed: false, ruleIndex: 1, reported: [0] })
  expect(judgeKind(rules, 'report.txt', '00')).toEqual({ allowed: true, ruleIndex: null, reported: [0] })
})

test('containers are told apart, and a trial has a name that fits', () => {
  expect([
    contentOf('52494646000000005741564500'),
    contentOf('524946460000000041564920'),
    contentOf('5249464600000000ffffffff'),
    contentOf(''),
  ]).toEqual(['audio', 'video', undefined, undefined])
  for (const pattern of ['*.mp3', 'a?b*', '*']) expect(fitsPattern(pattern, nameThatFits(pattern))).toBe(true)
})

test.each([
  [quota('people'), 'begins at the root'],
  [quota('/a/../b'), 'goes no way back'],
  [quota('/a/*'), 'names one directory'],
  [quota('/', { hardBytes: null }), 'needs a limit'],
  [quota('/', { softBytes: 200n }), 'soft limit is above'],
  [quota('/', { id: 7 }), 'Only users and groups'],
  [quota('/', { hardBytes: 5000n }), 'more than the share has'],
  [quota('/a', { project: { name: 'x', alsoAt: [] } }), 'Only a project'],
  [quota('/a', { of: 'project' }), 'has a name'],
  [quota('/a', { of: 'project', project: { name: ' ', alsoAt: [] } }), 'has a name'],
  [quota('/a', { of: 'project', project: { name: 'x', alsoAt: ['b'] } }), 'begins at the root'],
  [quota('/a', { of: 'project', project: { name: 'x', alsoAt: ['/b/*'] } }), 'names one directory'],
  [quota('/a', { of: 'project', project: { name: 'x', alsoAt: ['/b', '/a/c'] } }), '/a/c lies in another'],
  [quota('/a', { of: 'project', project: { name: 'x', alsoAt: ['/a/'] } }), 'counted twice'],
])('a quota that cannot be says why', (asked, why) =>
  expect(limitTroubles([asked], [], 1000n)).toMatchObject([
    { of: 'quota', why: expect.stringContaining(why) as string },
  ]),
)

test('two projects of one name cannot be told apart', () => {
  const of = (path: string) => quota(path, { of: 'project', project: { name: 'loans', alsoAt: [] } })
  expect(limitTroubles([of('/a'), of('/b')], [], 1000n)).toMatchObject([
    { index: 1, level: 'must', why: 'There is a project loans already.' },
  ])
})

test.each([
  ['', 'needs a name'],
  ['a/b', 'no slash'],
  ['**', 'every file'],
])('a file rule for %j says why', (pattern, why) =>
  expect(limitTroubles([], [{ pattern, content: 'any', verdict: 'deny' }], 1n)).toMatchObject([
    { why: expect.stringContaining(why) as string },
  ]),
)
