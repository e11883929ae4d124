import fc from 'fast-check'
import { errorTrend } from '.'

const day = 86_400_000
const now = 400 * day
/** A level at the end of each of so many days up to now. */
const daily = (levels: readonly number[]) =>
  levels.map((value, index) => ({ at: now - (levels.length - 1 - index) * day, value }))

test('errors that double every six days are told as such', () => {
  const levels = Array.from({ length: 40 }, (_, index) => 10 * 2 ** (index / 6))
  const { isRising, doublingDays } = errorTrend(daily(levels), now)
  expect(isRising).toBe(true)
  expect(doublingDays).toBeCloseTo(6, 6)
})

test('as many as every week, and a few more of very few, are not rising', () => {
  const even = Array.from({ length: 30 }, (_, index) => index * 50)
  expect(errorTrend(daily(even), now)).toEqual({ lastWeek: 350, weekBefore: 350, isRising: false, doublingDays: null })
  const few = [...Array.from({ length: 20 }, () => 3), 3, 3, 5, 6, 7, 8, 9, 10]
  expect(errorTrend(daily(few), now)).toMatchObject({ lastWeek: 7, isRising: false })
})

test('the first errors of a drive are rising without a time in which they doubled', () =>
  expect(errorTrend(daily([...Array.from({ length: 20 }, () => 0), 10, 40, 90]), now)).toEqual({
    lastWeek: 90,
    weekBefore: 0,
    isRising: true,
    doublingDays: null,
  }))

test('a counter that began anew, days without one, and none at all say nothing', () => {
  expect(errorTrend(daily([900, 900, 900, 900, 900, 900, 900, 900, 900, 0, 0]), now).isRising).toBe(false)
  expect(errorTrend([], now)).toEqual({ lastWeek: 0, weekBefore: 0, isRising: false, doublingDays: null })
  expect(errorTrend([{ at: now - 100 * day, value: 500 }], now).lastWeek).toBe(0)
  fc.assert(
    fc.property(fc.array(fc.nat(1e9), { maxLength: 40 }), levels => {
      const { lastWeek, weekBefore, doublingDays } = errorTrend(daily(levels), now)
      expect(lastWeek >= 0 && weekBefore >= 0).toBe(true)
      expect(doublingDays === null || doublingDays > 0).toBe(true)
    }),
  )
})
