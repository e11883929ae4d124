import fc from 'fast-check'
import { sampleId } from '../estate/testing/samples'
import { seeded } from '../testing/seeded'
import {
  alterLane,
  boardQuery,
  extremesOnGrid,
  isFull,
  laneIndex,
  leavesBand,
  moveLane,
  movesWith,
  onGrid,
  putOn,
  readBoard,
  takeOff,
  usualBand,
  type Board,
} from '.'

const hour = 3_600_000
const board: Board = {
  lanes: [
    {
      metric: 'latency',
      objectId: sampleId(1),
      over: { metric: 'latency', objectId: sampleId(2) },
      shiftDays: -7,
      isUsualShown: true,
    },
    {
      ...{ metric: 'written', objectId: sampleId(3), shiftDays: 0, isUsualShown: false },
      over: { metric: 'latency', objectId: sampleId(2), isOwnScale: true },
    },
  ],
  hours: 24,
  until: 1_777_777_777_000,
  chosen: 1,
}

test('the address is the board: what is written there is read back', () => {
  expect(readBoard(Object.fromEntries(new URLSearchParams(boardQuery(board))))).toEqual(board)
  expect(readBoard({})).toEqual({ lanes: [], hours: 72, until: null, chosen: null })
})

const series = (number: number) => ({ metric: 'latency' as const, objectId: sampleId(number) })

test('a lane that is moved, and one beside which others come and go, stays the chosen one', () => {
  const steps = fc.array(
    fc.oneof(
      fc.record({ what: fc.constant('put' as const), at: fc.nat(14), number: fc.nat(20) }),
      fc.record({ what: fc.constant('move' as const), at: fc.nat(14), number: fc.integer({ min: -3, max: 15 }) }),
      fc.record({ what: fc.constant('off' as const), at: fc.nat(14), number: fc.constant(0) }),
    ),
    { maxLength: 40 },
  )
  fc.assert(
    fc.property(steps, all => {
      let now: Board = { lanes: [], hours: 72, until: null, chosen: null }
      now = { ...putOn(now, series(1)), chosen: 0 }
      for (const { what, at, number } of all) {
        const before = now.lanes[now.chosen ?? -1]
        now =
          what === 'put'
            ? putOn(now, series(number), at)
            : what === 'move'
              ? moveLane(now, at, number)
              : takeOff(now, at)
        expect(now.lanes.length).toBeLessThanOrEqual(12)
        expect(new Set(now.lanes.map(each => each.objectId)).size).toBe(now.lanes.length)
        const isThere = before !== undefined && laneIndex(now, before) !== -1
        expect(now.lanes[now.chosen ?? -1]).toEqual(isThere ? before : undefined)
      }
      expect(readBoard(Object.fromEntries(new URLSearchParams(boardQuery(now))))).toEqual(now)
    }),
  )
})

test('a series that is put on again is moved, and altered it keeps its place', () => {
  const empty: Board = { lanes: [], hours: 72, until: null, chosen: null }
  const three = [1, 2, 3].reduce((now, number) => putOn(now, series(number)), empty)
  const order = ({ lanes }: Board) => lanes.map(({ objectId }) => objectId)
  expect(order(putOn(three, series(3), 0))).toEqual([sampleId(3), sampleId(1), sampleId(2)])
  expect(alterLane(three, 1, { shiftDays: -7 }).lanes.map(each => each.shiftDays)).toEqual([0, -7, 0])
  const full = Array.from({ length: 14 }).reduce<Board>((now, _, number) => putOn(now, series(number)), empty)
  expect([isFull(full), isFull(three)]).toEqual([true, false])
})

test('whatever an address says, a board comes of it, and never more than it can hold', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 300 }), fc.string({ maxLength: 20 }), (text, number) => {
      const read = readBoard({ lanes: text, hours: number, until: number, lane: number })
      expect(read.lanes.length).toBeLessThanOrEqual(12)
      expect(Number.isFinite(read.hours)).toBe(true)
      expect(readBoard(Object.fromEntries(new URLSearchParams(boardQuery(read))))).toEqual(read)
    }),
  )
  const lane = `latency.${sampleId(1)}`
  const many = Array.from({ length: 40 }, (_, number) => `latency.${sampleId(number)}`)
  expect(readBoard({ lanes: many.join('_') }).lanes).toHaveLength(12)
  expect(readBoard({ lanes: [lane, lane].join('_') }).lanes).toHaveLength(1)
  expect(readBoard({ lanes: `${lane}*shift~9999*over~nonsense` }).lanes[0]).toMatchObject({ shiftDays: 0, over: null })
})

test('a grid has the means of its steps, gaps where nothing was measured, and holds levels where asked to', () => {
  const samples = { times: Float64Array.from([5, 10, 12, 30, 90]), values: Float64Array.from([9, 1, 3, 5, 7]) }
  const grid = { from: 10, until: 50, steps: 4 }
  expect([...onGrid(samples, grid, 0)]).toEqual([2, Number.NaN, 5, Number.NaN])
  expect([...onGrid(samples, grid, Infinity)]).toEqual([2, 2, 5, 5])
  // One of an instant stands for so long after it, also one from before the grid.
  const early = { times: Float64Array.from([5]), values: Float64Array.from([9]) }
  expect([...onGrid(early, grid, Infinity)]).toEqual([9, 9, 9, 9])
  expect([...onGrid(early, grid, 16)]).toEqual([9, 9, Number.NaN, Number.NaN])
})

test('the least and the most of each step hold every sample, and are told only where a mean hides one', () => {
  const sample = fc.tuple(
    fc.integer({ min: 0, max: 99 }),
    fc.double({ noNaN: true, min: -1e6, max: 1e6 }).map(each => each + 0),
  )
  fc.assert(
    fc.property(fc.array(sample, { maxLength: 60 }), fc.integer({ min: 1, max: 10 }), (all, steps) => {
      const sorted = [...all].sort(([a], [b]) => a - b)
      const samples = {
        times: Float64Array.from(sorted, ([at]) => at),
        values: Float64Array.from(sorted, ([, value]) => value),
      }
      const found = extremesOnGrid(samples, { from: 20, until: 80, steps })
      for (let step = 0; step < steps; step += 1) {
        const own = sorted.flatMap(([at, value]) =>
          at >= 20 && at < 80 && Math.min(steps - 1, Math.floor((at - 20) / (60 / steps))) === step ? [value] : [],
        )
        if (found === undefined) expect(new Set(own).size).toBeLessThanOrEqual(1)
        else if (own.length === 0) expect([found.low[step], found.high[step]]).toEqual([NaN, NaN])
        else expect([found.low[step], found.high[step]]).toEqual([Math.min(...own), Math.max(...own)])
      }
    }),
  )
})

/** Means by hour: nights of 1, days of 10, a little noise, on Mondays 30 at nine. */
function hours(weeks: number, random: () => number, isBad = (_: number) => false) {
  return Float64Array.from({ length: weeks * 168 }, (_, at) => {
    // 1970 began on a Thursday.
    const [day, of] = [(Math.floor(at / 24) + 3) % 7, at % 24]
    const usual = day === 0 && of === 9 ? 30 : of >= 8 && of < 18 ? 10 : 1
    return isBad(at) ? 500 : usual + random() * 0.5
  })
}

test('the band of the usual follows the hour of the week, and a few bad nights do not widen it', () => {
  const past = hours(8, seeded(5), at => at % 168 < 3 && at < 168)
  const at = Float64Array.from({ length: 168 }, (_, index) => 8 * 168 * hour + index * hour)
  const { low, high } = usualBand(past, 0, at)
  const monday = Array.from(at).findIndex(
    each => (Math.floor(each / (24 * hour)) + 3) % 7 === 0 && (each / hour) % 24 === 9,
  )
  expect(low[monday]).toBeGreaterThan(29)
  expect(high[monday]).toBeLessThan(31)
  expect(Math.max(...high)).toBeLessThan(160)
  expect(low.every((each, index) => each <= (high[index] ?? 0))).toBe(true)
})

test('of less than three weeks the hour of the day has to do; of next to nothing there is no band', () => {
  const two = usualBand(hours(2, seeded(7)), 0, Float64Array.from([400 * hour]))
  expect(Number.isNaN(two.low[0])).toBe(false)
  expect(Number.isNaN(usualBand(new Float64Array(20), 0, Float64Array.from([400 * hour + 21 * hour])).low[0])).toBe(
    true,
  )
})

test('what leaves the band for longer than a moment is told, the longest first', () => {
  const band = { low: new Float64Array(20).fill(1), high: new Float64Array(20).fill(5) }
  const values = Float64Array.from([3, 9, 3, 9, 9, 9, 3, 0, 0, 0, 0, 3, 3, NaN, 3, 3, 3, 9, 9, 9])
  expect(leavesBand(values, band)).toEqual([
    { from: 7, to: 10, side: 'below' },
    { from: 3, to: 5, side: 'above' },
    { from: 17, to: 19, side: 'above' },
  ])
})

test('a series that follows another is found with its lag, and two that only both grow are not', () => {
  const random = seeded(11)
  const one = Float64Array.from({ length: 300 }, (_, at) => Math.sin(at / 9) * 10 + random())
  const later = Float64Array.from({ length: 300 }, (_, at) => (one[at - 7] ?? 0) * 3 + random() * 0.1)
  const found = movesWith(one, later, 20)
  expect(found).toMatchObject({ lag: 7, isTold: true })
  expect(found.strength).toBeGreaterThan(0.9)
  expect(movesWith(later, one, 20).lag).toBe(-7)
  const grow = (seed: number) => {
    const own = seeded(seed)
    let level = 0
    return Float64Array.from({ length: 300 }, () => (level += 5 + own()))
  }
  const told = Array.from({ length: 100 }, (_, seed) => movesWith(grow(seed + 1), grow(seed + 1000), 20).isTold)
  expect(told.filter(Boolean).length).toBeLessThanOrEqual(4)
})

test('gaps are left out, and what stands still or is not known goes with nothing', () => {
  const wave = Float64Array.from({ length: 200 }, (_, at) => Math.sin(at / 5))
  const holed = wave.map((value, at) => (at % 11 === 0 ? Number.NaN : value))
  expect(movesWith(wave, holed, 5)).toMatchObject({ lag: 0, isTold: true })
  expect(movesWith(wave, new Float64Array(200).fill(0.1), 5)).toMatchObject({ strength: 0, isTold: false })
  expect(movesWith(wave, new Float64Array(200).fill(Number.NaN), 5)).toMatchObject({ strength: 0, isTold: false })
})
