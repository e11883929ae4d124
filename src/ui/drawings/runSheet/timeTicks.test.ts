import fc from 'fast-check'
import { timeTicks } from './timeTicks'

test('an hour and forty minutes is cut into quarters of an hour', () =>
  expect(timeTicks(6000, 7).slice(0, 3)).toEqual([0, 900, 1800]))

test('never more than asked for, and never beyond the span', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.5, max: 1e7, noNaN: true }), fc.integer({ min: 2, max: 9 }), (span, most) => {
      const ticks = timeTicks(span, most)
      return ticks.length <= most + 1 && ticks.every(tick => tick <= span)
    }),
  )
})
