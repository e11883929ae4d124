import fc from 'fast-check'
import { dailyLevels, mergeSamples, packStart, refuseSamples, type Sample } from '.'

const day = 86_400_000
const monday = Date.UTC(2026, 4, 4)

test('late samples find their place, and of one instant the last that came counts', () => {
  const known = { times: [10, 20, 30], values: [1, 2, 3] }
  const come = [
    { at: 25, value: 9 },
    { at: 5, value: 8 },
    { at: 20, value: 7 },
    { at: 40, value: 6 },
    { at: 40, value: 5 },
  ]
  expect(mergeSamples(known, come)).toEqual({ times: [5, 10, 20, 25, 30, 40], values: [8, 1, 7, 9, 3, 5] })
})

test('in whatever parts and order samples come, and however often, the course is the same', () => {
  const samples = fc.uniqueArray(fc.record({ at: fc.nat(1000), value: fc.double({ noNaN: true }) }), {
    selector: ({ at }) => at,
    maxLength: 40,
  })
  fc.assert(
    fc.property(samples, fc.nat(), fc.nat(40), (all: readonly Sample[], turn, cut) => {
      const sorted = [...all].sort((a, b) => a.at - b.at)
      const mixed = [...all].sort((a, b) => ((a.at * 7919 + turn) % 101) - ((b.at * 7919 + turn) % 101))
      const first = mergeSamples({ times: [], values: [] }, mixed.slice(0, cut))
      const whole = mergeSamples(mergeSamples(first, mixed.slice(cut)), mixed)
      expect(whole.times).toEqual(sorted.map(({ at }) => at))
      expect(whole.values).toEqual(sorted.map(({ value }) => value))
    }),
  )
})

test('what cannot be is refused and counted by why, and the rest is kept', () => {
  const now = monday
  const sample = (value: number, at = now) => ({ at, value })
  const { kept, refused } = refuseSamples(
    [
      sample(1),
      sample(Number.NaN),
      sample(Number.POSITIVE_INFINITY),
      sample(-1),
      sample(2, now + 3_600_000),
      sample(3, now + 60_000),
      sample(4, now - 500 * day),
      sample(5, Number.NaN),
    ],
    now,
    400,
  )
  expect(kept.map(({ value }) => value)).toEqual([1, 3])
  expect(Object.fromEntries(refused)).toEqual({
    'is not a number': 3,
    'is below zero': 1,
    'is from the future': 1,
    'is older than what is kept': 1,
  })
})

test('a day has the level with which it ended; a day of which nothing is known lies between its neighbours and is named', () => {
  const found = dailyLevels([
    { at: monday + day / 2, value: 10 },
    { at: monday + 3 * day + 5, value: 40 },
    { at: monday + 4 * day, value: 41 },
  ])
  expect(found).toMatchObject({ firstDay: monday, firstWeekday: 0, gaps: [1, 2] })
  expect([...(found?.levels ?? [])]).toEqual([10, 20, 30, 40, 41])
  expect(dailyLevels([])).toBeUndefined()
})

test('a pack begins with its day', () => expect(packStart('written', monday + day - 1)).toBe(monday))
