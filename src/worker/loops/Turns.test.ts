import { Turns } from './Turns'

/** Asks whoever's turn it is. @returns who was asked */
function round(turns: Turns, ids: readonly string[], answers: (id: string) => boolean): readonly string[] {
  const asked = turns.next(ids)
  for (const id of asked) turns.asked(id, answers(id))
  return asked
}

test('all that answer are asked each time, and those that do not in turn, a few at a time after them', () => {
  const turns = new Turns(2)
  const ids = ['a', 'b', 'c', 'd', 'e', 'f']
  const answers = (id: string) => id === 'b' || id === 'd'
  expect(round(turns, ids, answers)).toEqual(ids)
  expect(round(turns, ids, answers)).toEqual(['b', 'd', 'a', 'c'])
  expect(round(turns, ids, answers)).toEqual(['b', 'd', 'e', 'f'])
  expect(round(turns, ids, answers)).toEqual(['b', 'd', 'a', 'c'])
  // One that answers again is among the others from then on; one that falls silent comes last.
  const others = (id: string) => id === 'e' || id === 'd'
  expect(round(turns, ids, others)).toEqual(['b', 'd', 'e', 'f'])
  expect(round(turns, ids, others)).toEqual(['d', 'e', 'a', 'c'])
  expect(round(turns, ids, others)).toEqual(['d', 'e', 'b', 'f'])
})

test('who is not there any more is not asked, and nobody is twice', () => {
  const turns = new Turns(3)
  round(turns, ['a', 'b', 'c'], () => false)
  expect(round(turns, ['a', 'c', 'x'], () => false)).toEqual(['x', 'a', 'c'])
  expect(new Set(turns.next(['a', 'c', 'x'])).size).toBe(3)
  expect(turns.next(['b'])).toEqual(['b'])
})
