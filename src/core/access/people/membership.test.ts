import fc from 'fast-check'
import { groupsAbove, rings, wayTo, type Member } from './membership'

const group = (durableId: string, ...memberOf: string[]): Member => ({ durableId, memberOf })
const known = (...all: readonly Member[]) => new Map(all.map(each => [each.durableId, each]))
const ids = (all: readonly Member[] | undefined) => all?.map(({ durableId }) => durableId)

test('groups are found through others, the nearest first, each once; a ring ends', () => {
  const groups = known(group('a', 'b'), group('b', 'c'), group('c', 'a'), group('d'))
  expect(ids(groupsAbove(group('me', 'd', 'a', 'nowhere'), groups))).toEqual(['d', 'a', 'b', 'c'])
  // Who is in a ring is not in a group of that name by itself.
  expect(ids(groupsAbove(group('a', 'b'), groups))).toEqual(['b', 'c'])
})

test('the way to a group is the shortest, and there is none where there is none', () => {
  const groups = known(group('a', 'b'), group('b', 'z'), group('c', 'z'), group('z', 'a'))
  expect(ids(wayTo(group('me', 'a', 'c'), 'z', groups))).toEqual(['c', 'z'])
  expect(ids(wayTo(group('me', 'a'), 'z', groups))).toEqual(['a', 'b', 'z'])
  expect(wayTo(group('me', 'c'), 'elsewhere', groups)).toBeUndefined()
})

test('rings are told: of two, of itself, and none where groups only nest', () => {
  expect(
    rings(known(group('a', 'b'), group('b', 'a'), group('c', 'c'), group('d', 'a'))).map(each => ids(each)?.sort()),
  ).toEqual([['a', 'b'], ['c']])
  expect(rings(known(group('a', 'b'), group('b', 'c'), group('c')))).toEqual([])
})

const graph = fc.array(fc.array(fc.integer({ min: 0, max: 11 }), { maxLength: 3 }), { minLength: 12, maxLength: 12 })

test('each group above has a way that leads there step by step, and nothing else has one', () => {
  fc.assert(
    fc.property(graph, edges => {
      const groups = known(...edges.map((above, index) => group(`${index}`, ...above.map(String))))
      const me = group('me', '0', '1')
      const above = new Set(ids(groupsAbove(me, groups)))
      for (const { durableId } of groups.values()) {
        const way = wayTo(me, durableId, groups)
        expect(way !== undefined).toBe(above.has(durableId))
        way?.forEach((step, index) => expect((way[index - 1] ?? me).memberOf).toContain(step.durableId))
      }
    }),
  )
})

test('groups of one ring reach each other, and those of different rings do not both ways', () => {
  fc.assert(
    fc.property(graph, edges => {
      const groups = known(...edges.map((above, index) => group(`${index}`, ...above.map(String))))
      const reaches = (from: Member, to: Member) => wayTo(from, to.durableId, groups) !== undefined
      const ringOf = new Map(rings(groups).flatMap((ring, index) => ring.map(each => [each.durableId, index] as const)))
      for (const a of groups.values())
        for (const b of groups.values())
          if (a !== b)
            expect(reaches(a, b) && reaches(b, a)).toBe(
              ringOf.has(a.durableId) && ringOf.get(a.durableId) === ringOf.get(b.durableId),
            )
    }),
    { numRuns: 60 },
  )
})
