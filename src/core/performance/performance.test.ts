import fc from 'fast-check'
import { seeded } from '../testing/seeded'
import { kneeOf, missCurve, poolLoudness, sampledMissCurve, stationLoad, type Station } from '.'

const stations = fc.oneof(
  fc.record({
    model: fc.constant('mmc' as const),
    serviceSeconds: fc.double({ min: 1e-5, max: 0.1, noNaN: true }),
    servers: fc.integer({ min: 1, max: 64 }),
  }),
  fc.record({
    model: fc.constant('mg1' as const),
    serviceSeconds: fc.double({ min: 1e-5, max: 0.1, noNaN: true }),
    serviceScv: fc.double({ min: 0, max: 5, noNaN: true }),
  }),
)
const responseAt = (station: Station, arrivals: number) => {
  const load = stationLoad(station, arrivals)
  return load.stable ? load.meanResponseSeconds : Number.POSITIVE_INFINITY
}

test('the more is asked, the longer it takes, and at the knee just twice as long as alone', () => {
  fc.assert(
    fc.property(stations, fc.double({ min: 0, max: 1, noNaN: true }), (station, share) => {
      const { utilization, arrivalsPerSecond } = kneeOf(station)
      expect(responseAt(station, arrivalsPerSecond) / station.serviceSeconds).toBeCloseTo(2, 6)
      expect(utilization).toBeLessThan(1)
      expect(responseAt(station, arrivalsPerSecond * share)).toBeLessThanOrEqual(2 * station.serviceSeconds + 1e-12)
      expect(responseAt(station, arrivalsPerSecond * (1 + share))).toBeGreaterThanOrEqual(
        2 * station.serviceSeconds - 1e-9,
      )
    }),
  )
})

test('a larger cache never misses more, and one of all blocks misses each block once', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(30), { maxLength: 200 }), trace => {
      const sizes = Array.from({ length: 33 }, (_, size) => size)
      const { curve, distinctBlocks } = missCurve(trace, sizes)
      expect(curve.every(({ misses }, index) => misses <= (curve[index - 1]?.misses ?? trace.length))).toBe(true)
      expect(curve.at(-1)?.misses).toBe(distinctBlocks)
    }),
  )
})

test.each([1, 2])('a hundredth of a million blocks tells the curve to a hundredth, skewed by a power of %d', power => {
  const random = seeded(power)
  const blocks = 2 ** 20
  const trace = Float64Array.from({ length: 1_200_000 }, () => Math.floor(random() ** power * blocks))
  const sizes = [0.03, 0.12, 0.25, 0.5, 0.75].map(share => Math.round(share * blocks))
  const exact = missCurve(trace, sizes).curve
  const sampled = sampledMissCurve(trace, sizes, 0.01)
  const errors = sampled.map((each, index) => Math.abs(each.missRatio - (exact[index]?.missRatio ?? 0)))
  expect(Math.max(...errors)).toBeLessThan(0.01)
})

test('shares add up to all, the loudest comes first, and without it the others gain most', () => {
  const station: Station = { model: 'mmc', serviceSeconds: 0.006, servers: 44 }
  const demand = (id: string, requestsPerSecond: number, stationRequestsEach = 1) => ({
    id,
    requestsPerSecond,
    stationRequestsEach,
  })
  const found = poolLoudness(station, [demand('quiet', 40), demand('writes', 600, 6), demand('reads', 2000)])
  expect(found.volumes.map(({ id }) => id)).toEqual(['writes', 'reads', 'quiet'])
  expect(found.volumes.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12)
  const gains = found.volumes.map(({ othersGainSeconds }) => othersGainSeconds ?? 0)
  expect(gains).toEqual([...gains].sort((a, b) => b - a))
  expect(gains[2]).toBeGreaterThan(0)
  expect(found.headroomRatio).toBeGreaterThan(0)
})

test('of a pool that is asked for more than it serves no gain is invented; an idle one has none to tell', () => {
  const station: Station = { model: 'mmc', serviceSeconds: 0.01, servers: 2 }
  const over = poolLoudness(station, [{ id: 'a', requestsPerSecond: 300, stationRequestsEach: 1 }])
  expect(over).toMatchObject({
    responseSeconds: null,
    volumes: [{ share: 1, othersGainSeconds: null, utilizationWithout: 0 }],
  })
  expect(over.headroomRatio).toBeLessThan(0)
  expect(poolLoudness(station, [])).toEqual({ utilization: 0, responseSeconds: 0.01, headroomRatio: null, volumes: [] })
})
