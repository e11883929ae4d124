import fc from 'fast-check'
import { leastOffset } from '.'

const start = Date.parse('2026-03-01T10:00:00Z')
const at = (milliseconds: number) => new Date(start + milliseconds)

test('a clock six minutes behind is found so, less what its reading took', () => {
  expect(leastOffset(at(0), at(-360_000), at(40))).toBe(-360_000)
  expect(leastOffset(at(0), at(360_040), at(40))).toBe(360_000)
})

test('a clock that is right is never found off, however slow its reading is', () => {
  fc.assert(
    fc.property(fc.nat(1e6), fc.nat(1e6), (there, back) => leastOffset(at(0), at(there), at(there + back)) === 0),
  )
})

test('what is found never exceeds how far the clock is off, and falls short by no more than its reading took', () => {
  fc.assert(
    fc.property(fc.nat(1e6), fc.nat(1e6), fc.integer({ min: -1e7, max: 1e7 }), (there, back, off) => {
      const found = leastOffset(at(0), at(there + off), at(there + back))
      expect(Math.sign(found) * Math.sign(off)).toBeGreaterThanOrEqual(0)
      expect(Math.abs(found)).toBeLessThanOrEqual(Math.abs(off))
      expect(Math.abs(off) - Math.abs(found)).toBeLessThanOrEqual(there + back)
    }),
  )
})
