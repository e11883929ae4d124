import { fact, firstStep, found, NotKnown } from './known'

test('what a step has not found out is no fact, and nobody goes on with an empty name in its place', () => {
  const facts = found({ poolLocator: '/pools/1', poolId: undefined, task: null, naa: '' })
  expect(facts).toEqual({ poolLocator: '/pools/1', naa: '' })
  expect(fact(facts, 'poolLocator')).toBe('/pools/1')
  expect(() => fact(facts, 'poolId')).toThrow(NotKnown)
  expect(() => fact(facts, 'naa')).toThrow('The change does not know naa.')
})

test('a plan without a step has no first one', () => {
  const plan = { steps: [] } as unknown as Parameters<typeof firstStep>[0]
  expect(() => firstStep(plan)).toThrow(NotKnown)
})
