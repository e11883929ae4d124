import fc from 'fast-check'
import { daysToWearOut, sensorState } from '.'

test('a drive that has used a quarter of its life in a year has three more', () => {
  expect(daysToWearOut(0.25, 365 * 24)).toBe(3 * 365)
  expect(daysToWearOut(1, 100)).toBe(0)
})

test('of a young drive, one that has hardly been written, and one that states nothing no day is told', () => {
  expect(daysToWearOut(0.5, 100)).toBeNull()
  expect(daysToWearOut(0.001, 50_000)).toBeNull()
  expect(daysToWearOut(null, 50_000)).toBeNull()
  expect(daysToWearOut(0.5, null)).toBeNull()
})

test('the more is used in the same hours, the sooner it is over', () => {
  const wear = fc.double({ min: 0.01, max: 0.99, noNaN: true })
  fc.assert(
    fc.property(wear, wear, fc.integer({ min: 500, max: 90_000 }), (one, other, hours) => {
      const [less, more] = [Math.min(one, other), Math.max(one, other)]
      expect(daysToWearOut(more, hours) ?? 0).toBeLessThanOrEqual(daysToWearOut(less, hours) ?? 0)
    }),
  )
})

test.each([
  [40, 60, 'fine'],
  [56, 60, 'near'],
  [60, 60, 'past'],
  [40, null, 'not known'],
  [Number.NaN, 60, 'not known'],
] as const)('a reading of %p with a caution at %p is %s', (reading, cautionAt, state) =>
  expect(sensorState({ reading, cautionAt })).toBe(state),
)
