import fc from 'fast-check'
import { agreedClock, clocksApart, estateTime, isSameClock, rateOf, type ClockReading } from '.'

const wall = new Date('2026-05-04T10:00:00Z')
const reading = (systemId: string, aheadSeconds: number, rate = 1): ClockReading => ({
  systemId,
  wallAt: wall,
  systemAt: new Date(wall.getTime() + aheadSeconds * 1000),
  rate,
})
const aheadOf = (readings: readonly ClockReading[], previous?: Parameters<typeof agreedClock>[1]) =>
  (estateTime(agreedClock(readings, previous, wall), wall).getTime() - wall.getTime()) / 1000
const month = 30 * 86_400

test('one clock that is a month ahead does not rule, whoever answers first', () => {
  const liar = reading('heron', month)
  expect(aheadOf([liar, reading('bittern', 0), reading('godwit', 1)])).toBeLessThan(3)
  expect(aheadOf([reading('bittern', 0), liar, reading('godwit', 1)])).toBeLessThan(3)
  const clock = agreedClock([liar, reading('bittern', 0), reading('godwit', 1)], undefined, wall)
  expect(clocksApart([liar, reading('bittern', 0)], clock, wall)).toEqual([
    { systemId: 'heron', secondsAhead: expect.closeTo(month, -1) },
  ])
})

test('where no majority is, the time that was agreed on before goes on at its own rate', () => {
  const previous = { wallAt: new Date(wall.getTime() - 10_000).toISOString(), estateAt: wall.toISOString(), rate: 60 }
  expect(aheadOf([reading('a', month), reading('b', 0)], previous)).toBe(600)
  expect(aheadOf([], previous)).toBe(600)
})

test('clocks that run fast together are followed, and a slow answer is no disagreement', () => {
  const fleet = [reading('a', 5000, 60), reading('b', 5090, 60), reading('c', 4950, 60)]
  expect(aheadOf(fleet)).toBe(5000)
  expect(agreedClock(fleet, undefined, wall).rate).toBe(60)
})

test('fewer than half, however far they are off, never move the time by more than honest clocks differ', () => {
  const honest = fc.array(fc.integer({ min: -2, max: 2 }), { minLength: 3, maxLength: 9 })
  const lies = fc.array(fc.integer({ min: -1e8, max: 1e8 }), { maxLength: 2 })
  fc.assert(
    fc.property(honest, lies, (true_, false_) => {
      const all = [...true_, ...false_].map((ahead, index) => reading(`${index}`, ahead))
      expect(Math.abs(aheadOf(all))).toBeLessThanOrEqual(9)
    }),
  )
})

test('a rate is what a clock gains between two looks; the wall counts as one', () => {
  const later = new Date(wall.getTime() + 2000)
  const at = (seconds: number) => new Date(wall.getTime() + seconds * 1000)
  expect(rateOf(undefined, wall, wall)).toEqual({ rate: 1 })
  expect(rateOf({ ...reading('a', 0), seenOnce: 61 }, later, at(120))).toEqual({ rate: 60 })
  expect(rateOf(reading('a', 0), later, at(2.04))).toEqual({ rate: 1 })
  expect(rateOf(reading('a', 0, 60), wall, at(9))).toEqual({ rate: 60 })
})

test('a clock that is set forward goes no faster; one that slows down is believed at once', () => {
  const later = new Date(wall.getTime() + 2000)
  const at = (seconds: number) => new Date(wall.getTime() + seconds * 1000)
  const jumped = rateOf(reading('a', 0), later, at(3602))
  expect(jumped).toEqual({ rate: 1, seenOnce: 1801 })
  expect(rateOf({ ...reading('a', 0), ...jumped }, later, at(2))).toEqual({ rate: 1 })
  expect(rateOf(reading('a', 0, 36_000), later, at(2))).toEqual({ rate: 1 })
  expect(rateOf(reading('a', 0, 60), later, at(-600))).toEqual({ rate: 60 })
})

test('a clock is kept anew only where it would be read otherwise', () => {
  const clock = { wallAt: wall.toISOString(), estateAt: wall.toISOString(), rate: 60 }
  const later = new Date(wall.getTime() + 60_000)
  expect(isSameClock(clock, { ...clock, rate: 60.1 }, later)).toBe(true)
  expect(isSameClock(clock, { ...clock, rate: 90 }, wall)).toBe(false)
  expect(isSameClock(clock, { ...clock, estateAt: later.toISOString() }, wall)).toBe(false)
})
