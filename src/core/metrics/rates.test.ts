import { ratesBetween, ratesTogether, type Counters } from './rates'

const minute = 60_000
const counters = (at: number, requests: number, more: Partial<Counters> = {}): Counters => ({
  ...{ at, readRequests: requests, writeRequests: 0, readKibibytes: requests * 8, writeKibibytes: 0 },
  readHits: requests * 0.75,
  ...{ readSeconds: requests * 0.005, writeSeconds: 0, ...more },
})

test('rates are what was counted by the time in which it was', () =>
  expect(ratesBetween(counters(0, 1000), counters(minute, 7000))).toEqual({
    at: minute,
    operations: 100,
    writes: 0,
    bytesPerSecond: 100 * 8 * 1024,
    latencySeconds: expect.closeTo(0.005, 12),
    hitRatio: 0.75,
  }))

test('a counter that has gone round goes on; one that has begun anew says nothing of the time between', () => {
  const top = 2 ** 32
  const before = counters(0, top - 100, { readKibibytes: top - 50, readSeconds: 500 })
  const round = counters(minute, 200, { readKibibytes: 70, readSeconds: 501 })
  expect(ratesBetween(before, round)).toMatchObject({ operations: 5, bytesPerSecond: (120 * 1024) / 60 })
  const anew = counters(minute, 200, { readSeconds: 1 })
  expect(ratesBetween(before, anew)).toBeUndefined()
  // A count that would have to be impossibly large, though its time has gone on.
  expect(ratesBetween(counters(0, 5000), counters(minute, 4000, { readSeconds: 26 }))).toBeUndefined()
})

test('no time, time that goes back, and what is no number have no rates', () => {
  expect(ratesBetween(counters(5, 1), counters(5, 2))).toBeUndefined()
  expect(ratesBetween(counters(6, 1), counters(5, 2))).toBeUndefined()
  expect(ratesBetween(counters(0, 1), counters(5, Number.NaN))).toBeUndefined()
})

test('without requests there is no time of one', () =>
  expect(ratesBetween(counters(0, 7), counters(minute, 7))).toEqual({
    at: minute,
    operations: 0,
    writes: 0,
    bytesPerSecond: 0,
    latencySeconds: undefined,
    hitRatio: undefined,
  }))

test('hits of which a system says nothing, or nonsense, take nothing from the other rates', () => {
  const hits = (before: number, after: number) =>
    ratesBetween(counters(0, 1000, { readHits: before }), counters(minute, 7000, { readHits: after }))
  expect(hits(Number.NaN, Number.NaN)).toMatchObject({ operations: 100, hitRatio: undefined })
  expect(hits(0, 90_000)).toMatchObject({ operations: 100, hitRatio: undefined })
  // Counted a moment later than the reads.
  expect(hits(0, 6003)?.hitRatio).toBe(1)
  expect(hits(2 ** 32 - 1000, 2000)?.hitRatio).toBe(0.5)
})

test('of several the busier weighs more', () => {
  const rates = (operations: number, latencySeconds: number | undefined, hitRatio: number | undefined) => ({
    at: 1,
    operations,
    writes: operations / 10,
    bytesPerSecond: 10,
    latencySeconds,
    hitRatio,
  })
  expect(ratesTogether(2, [rates(30, 0.001, 0.5), rates(10, 0.005, 0.9), rates(0, undefined, undefined)])).toEqual({
    at: 2,
    operations: 40,
    writes: 4,
    bytesPerSecond: 30,
    latencySeconds: 0.002,
    hitRatio: expect.closeTo(0.6, 12),
  })
  // One that tells of no hits says nothing of those of the others.
  expect(ratesTogether(2, [rates(10, 0.001, 0.5), rates(90, 0.001, undefined)]).hitRatio).toBe(0.5)
  expect(ratesTogether(2, []).latencySeconds).toBeUndefined()
})
