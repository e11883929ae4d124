import fc from 'fast-check'
import { newRule, reviewLines, sinceReview, withoutLines, type ReviewedLine } from '..'

const share = {
  grants: [
    { who: '*', name: '', right: 'read' as const },
    { who: 'g-studio', name: 'studio', right: 'change' as const },
    { who: 'u-holt', name: 'Quill Holt', right: 'none' as const },
  ],
  rules: [
    { ...newRule, client: '10.0.1.0/24', access: 'ro' as const, squash: 'root' as const },
    { ...newRule, client: '*', access: 'none' as const, squash: 'all' as const },
    { ...newRule, client: '10.0.1.0/24', access: 'ro' as const, squash: 'root' as const },
  ],
}
const reviewed = (goes: readonly string[] = []): ReviewedLine[] =>
  reviewLines(share).map(line => ({ ...line, verdict: goes.includes(line.key) ? 'goes' : 'stays' }))

test('each right is a line in words, one that stands twice only once', () =>
  expect(reviewLines(share).map(({ words }) => words)).toEqual([
    'Everybody who signs in may read',
    'studio may read and write',
    'Quill Holt is refused',
    '10.0.1.0/24 may read, root is squashed',
    'Any host is refused, everybody is squashed',
  ]))

test('entries of an access list are rights too, and go as others do', () => {
  const acl = [
    { kind: 'allow' as const, who: 'gid:3100', may: 'both' as const },
    { kind: 'deny' as const, who: 'EVERYONE@', may: 'write' as const },
  ]
  const lines = reviewLines({ rules: [], grants: [], acl })
  expect(lines.map(({ words }) => words)).toEqual([
    'By the access list gid 3100 may read and write',
    'By the access list everyone may not write',
  ])
  expect(withoutLines({ rules: [], grants: [], acl }, new Set([lines[0]?.key ?? ''])).acl).toEqual([acl[1]])
})

test('a right that is widened is another, one whose group is renamed is the same', () => {
  const keys = (right: 'read' | 'change', name: string) =>
    reviewLines({ rules: [], grants: [{ who: 'g', name, right }] })[0]?.key
  expect(keys('read', 'studio')).toBe(keys('read', 'photo studio'))
  expect(keys('read', 'studio')).not.toBe(keys('change', 'studio'))
})

test('what was given since, taken away since, and should have gone is told apart', () => {
  const goes = reviewed(['grant change g-studio'])
  const now = reviewLines({
    ...share,
    grants: [...share.grants.slice(1), { who: 'g-new', name: 'new', right: 'read' }],
  })
  const found = sinceReview(now, goes)
  expect(found.added.map(({ words }) => words)).toEqual(['new may read'])
  expect(found.gone.map(({ words }) => words)).toEqual(['Everybody who signs in may read'])
  expect(found.stillThere.map(({ words }) => words)).toEqual(['studio may read and write'])
})

test('what goes is gone as often as it stands, the rest keeps its order, and nothing is then otherwise than was decided', () => {
  const keys = reviewLines(share).map(({ key }) => key)
  fc.assert(
    fc.property(fc.subarray(keys), goes => {
      const left = withoutLines(share, new Set(goes))
      const rest = reviewLines(left).map(({ key }) => key)
      expect(rest).toEqual(keys.filter(key => !goes.includes(key)))
      expect(sinceReview(reviewLines(left), reviewed(goes))).toEqual({ added: [], gone: [], stillThere: [] })
    }),
  )
})
