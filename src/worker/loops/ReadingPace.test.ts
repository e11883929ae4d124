import { ReadingPace } from './ReadingPace'

const began = 1_000_000
/** One whole reading that took so long. */
const after = (took: number, processor = took / 2, pace = 1) => {
  const readings = new ReadingPace(pace)
  expect(readings.isDue(began)).toBe(true)
  readings.begins(began)
  readings.ended(began + took, processor)
  return readings
}

test('a small system is read every ten seconds, a large one by what it takes, and every two minutes at the longest', () => {
  expect(after(200).untilDue(began)).toBe(10_000)
  expect(after(200, 100, 5).untilDue(began)).toBe(2000)
  expect(Math.round(after(1430).untilDue(began))).toBe(40_000)
  expect(Math.round(after(900, 1500).untilDue(began))).toBe(50_000)
  expect(after(60_000).untilDue(began)).toBe(120_000)
  expect([after(200).isDue(began + 9000), after(200).isDue(began + 10_001)]).toEqual([false, true])
})

test('one that asks to be read again and again is read a fifth of the time at most, and never later than it is due', () => {
  expect(after(200).untilRung(began + 200)).toBe(800)
  expect(after(200).untilRung(began + 5000)).toBe(0)
  expect(after(6000).untilRung(began + 6000)).toBe(24_000)
  expect(after(60_000).untilRung(began + 120_001)).toBe(0)
})

test('whether one is silent is known soon, however long it takes to be read', () => {
  const part = after(60_000)
  part.failed(false)
  expect(part.untilRung(began + 61_000)).toBe(0)
  expect(part.isDue(began + 61_000)).toBe(true)
  const whole = after(60_000)
  whole.failed(true)
  expect(whole.untilDue(began + 1000)).toBe(9000)
})
