import fc from 'fast-check'
import { packSamples, unpackSamples } from '.'

const minute = 60_000
const start = Date.UTC(2026, 4, 4)
const regular = (values: readonly number[]) => ({ times: values.map((_, at) => start + at * minute), values })
const round = (samples: { readonly times: readonly number[]; readonly values: readonly number[] }) => {
  const { times, values } = unpackSamples(packSamples(samples))
  return { times: [...times], values: [...values] }
}

test('any finite numbers come back as they were, at any times that ascend', () => {
  const numbers = fc.oneof(
    fc.double({ noDefaultInfinity: true }),
    fc.integer(),
    fc.integer({ min: 0, max: 100_000 }).map(each => each / 1000),
    fc.integer({ min: -(2 ** 30), max: 2 ** 30 }).map(each => each * 2 ** 20),
    fc.constantFrom(-0, 0, Number.NaN, 5e-324, Number.MAX_VALUE, 2 ** 53, 0.1 + 0.2),
  )
  const steps = fc.oneof(fc.constant(minute), fc.integer({ min: 1, max: 10 * minute }))
  fc.assert(
    fc.property(fc.array(fc.tuple(steps, numbers), { maxLength: 200 }), all => {
      let at = start
      const times = all.map(([step]) => (at += step))
      const values = all.map(([, value]) => value)
      const again = round({ times, values })
      expect(again.times).toEqual(times)
      expect(again.values.every((value, index) => Object.is(value, values[index]))).toBe(true)
    }),
    { numRuns: 500 },
  )
})

test('gaps stay gaps, wherever they stand', () => {
  for (const values of [[Number.NaN], [Number.NaN, 1, Number.NaN], [1, Number.NaN, Number.NaN, 2], []])
    expect(round(regular(values)).values).toEqual(values)
})

test('an hour of a metric takes little: what stands still a few bytes, decimals about one each', () => {
  const still = packSamples(regular(Array.from({ length: 60 }, () => 42)))
  const noisy = packSamples(regular(Array.from({ length: 60 }, (_, at) => Math.round(800 + 40 * Math.sin(at)) / 1000)))
  const random = packSamples(regular(Array.from({ length: 60 }, (_, at) => Math.sin(at * 7.3))))
  const extents = packSamples(regular(Array.from({ length: 60 }, (_, at) => 2 ** 50 + (at * 30 + (at % 7)) * 2 ** 20)))
  expect(extents.length).toBeLessThan(90)
  expect(still.length).toBeLessThan(20)
  expect(noisy.length).toBeLessThan(80)
  expect(random.length).toBeLessThanOrEqual(60 * 9 + 20)
})

test('times that do not ascend and values that are infinite are refused', () => {
  expect(() => packSamples({ times: [2, 2], values: [1, 1] })).toThrow(RangeError)
  expect(() => packSamples({ times: [2, 1], values: [1, 1] })).toThrow(RangeError)
  expect(() => packSamples({ times: [1.5], values: [1] })).toThrow(RangeError)
  expect(() => packSamples({ times: [1], values: [Number.POSITIVE_INFINITY] })).toThrow(RangeError)
  expect(() => packSamples({ times: [1], values: [] })).toThrow(RangeError)
})

test('bytes that are no pack are refused, and never loop or allocate without end', () => {
  const pack = packSamples(regular([1, 2.5, 4, Number.NaN, 1e300]))
  for (let length = 0; length < pack.length; length += 1)
    expect(() => unpackSamples(pack.slice(0, length))).toThrow(RangeError)
  expect(() => unpackSamples(new Uint8Array([255, 255, 255, 255, 255, 255, 255, 255, 255]))).toThrow(RangeError)
  expect(() => unpackSamples(new Uint8Array([200, 250, 250, 10, 0]))).toThrow(RangeError)
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 60 }), bytes => {
      try {
        unpackSamples(bytes)
      } catch (cause) {
        expect(cause).toBeInstanceOf(RangeError)
      }
    }),
  )
})
