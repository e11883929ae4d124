import fc from 'fast-check'
import { Sketch, sketchError } from './sketch'

const sketchOf = (values: readonly number[]) => {
  const sketch = new Sketch()
  for (const value of values) sketch.add(value)
  return sketch
}
const values = fc.array(fc.oneof(fc.double({ min: 1e-6, max: 1e6, noNaN: true }), fc.constant(0)), {
  minLength: 1,
  maxLength: 300,
})

test('a quantile is right to a hundredth, of one sketch as of many that were packed and merged', () => {
  fc.assert(
    fc.property(values, fc.nat(7), fc.double({ min: 0, max: 1, noNaN: true }), (all, parts, rank) => {
      const merged = new Sketch()
      for (let part = 0; part <= parts; part += 1) {
        const own = sketchOf(all.filter((_, index) => index % (parts + 1) === part))
        merged.merge(Sketch.unpacked(own.packed()))
      }
      const truth = [...all].sort((a, b) => a - b)[Math.floor(rank * (all.length - 1))] ?? 0
      for (const sketch of [merged, sketchOf(all)]) {
        expect(sketch.count).toBe(all.length)
        expect(Math.abs((sketch.quantile(rank) ?? 0) - truth)).toBeLessThanOrEqual(truth * sketchError * 1.0001)
      }
    }),
  )
})

test('nothing has no quantile, and bytes that are no sketch are refused', () => {
  expect(new Sketch().quantile(0.5)).toBeUndefined()
  const packed = sketchOf([1, 2, 3]).packed()
  for (let length = 0; length < packed.length; length += 1)
    expect(() => Sketch.unpacked(packed.slice(0, length))).toThrow(RangeError)
})

test('an hour of latencies takes little', () =>
  expect(
    sketchOf(Array.from({ length: 60 }, (_, at) => 0.004 + 0.002 * Math.sin(at) ** 2)).packed().length,
  ).toBeLessThan(80))
