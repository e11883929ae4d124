import fc from 'fast-check'
import { forecastBefore, forecastDuring, inSequence, plannedBy } from '.'

test('the slowest shared part sets the pace, less what hosts use of it', () => {
  const forecast = forecastBefore(
    1_000_000_000_000n,
    [
      { name: 'drives', bytesPerSecond: 2e9 },
      { name: 'network', bytesPerSecond: 1.25e9, busyRatio: 0.2 },
    ],
    0,
    [],
  )
  expect(forecast.boundBy).toBe('network')
  expect(forecast.p50Seconds).toBeCloseTo(1000, 6)
  expect(forecast.p10Seconds).toBeLessThan(1000)
  expect(forecast.p90Seconds).toBeGreaterThan(1000)
})

test('earlier misses replace the first guess', () => {
  const learned = forecastBefore(
    100n,
    [{ name: 'drives', bytesPerSecond: 1 }],
    0,
    Array.from({ length: 20 }, () => 1.5),
  )
  expect(learned.p50Seconds).toBeGreaterThan(145)
  expect(learned.p50Seconds).toBeLessThan(150)
  expect(learned.p90Seconds - learned.p10Seconds).toBeLessThan(40)
  expect(learned.learnedFrom).toBe(20)
})

test('ranges keep their order', () => {
  fc.assert(
    fc.property(fc.bigInt(0n, 10n ** 15n), fc.array(fc.double({ min: 0.1, max: 10, noNaN: true })), (bytes, misses) => {
      const forecast = forecastBefore(bytes, [{ name: 'drives', bytesPerSecond: 1e8 }], 3, misses)
      return forecast.p10Seconds <= forecast.p50Seconds && forecast.p50Seconds <= forecast.p90Seconds
    }),
  )
})

test('steps in sequence add up, and the longest binds', () => {
  const short = forecastBefore(0n, [], 2, [])
  const long = forecastBefore(1000n, [{ name: 'drives', bytesPerSecond: 1 }], 0, [])
  expect(inSequence([short, long])).toMatchObject({ boundBy: 'drives', p50Seconds: short.p50Seconds + long.p50Seconds })
})

test('a steady job ends when its pace says', () => {
  const samples = Array.from({ length: 11 }, (_, index) => ({ atSeconds: index * 10, doneRatio: index * 0.05 }))
  expect(forecastDuring(samples)?.p50Seconds).toBeCloseTo(100, 6)
})

test('recent progress outweighs a fast start', () => {
  const fast = Array.from({ length: 6 }, (_, index) => ({ atSeconds: index * 10, doneRatio: index * 0.1 }))
  const slow = Array.from({ length: 6 }, (_, index) => ({
    atSeconds: 50 + (index + 1) * 10,
    doneRatio: 0.5 + (index + 1) * 0.01,
  }))
  const remaining = forecastDuring([...fast, ...slow])
  const sinceStart = (110 / 0.56) * 0.44
  expect(remaining?.p50Seconds).toBeGreaterThan(sinceStart * 1.5)
})

test('a known slow tail is expected before it comes', () => {
  const samples = [
    { atSeconds: 0, doneRatio: 0 },
    { atSeconds: 50, doneRatio: 0.5 },
  ]
  expect(forecastDuring(samples, 3)?.p50Seconds).toBeCloseTo(40 + 10 * 3, 6)
})

test('no progress is no answer', () => {
  expect(
    forecastDuring([
      { atSeconds: 0, doneRatio: 0.2 },
      { atSeconds: 9, doneRatio: 0.2 },
    ]),
  ).toBeUndefined()
  expect(forecastDuring([])).toBeUndefined()
})

test('whole per cents do not widen the range of a steady job', () => {
  const steady = Array.from({ length: 60 }, (_, index) => ({
    atSeconds: index * 7,
    doneRatio: Math.floor(index * 0.8) / 100,
  }))
  const left = forecastDuring(steady)
  expect((left?.p90Seconds ?? 0) / (left?.p10Seconds ?? 1)).toBeLessThan(1.4)
})

test('what is done while one looks at it is not counted, unless it was to take longer or took longer', () => {
  const job = (p90: number, actual: number) => ({ p10: 0.1, p50: 1, p90, actual })
  const all = [job(2, 0.3), job(2, 12), job(30, 3), job(9.9, 9.9)]
  expect(plannedBy(all)).toEqual([job(2, 12), job(30, 3)])
})
