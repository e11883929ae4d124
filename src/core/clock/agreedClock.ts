import { estateTime, type EstateClock } from './estateTime'

/** What one system's clock said, and how fast it runs against the wall's. */
export interface ClockReading {
  readonly systemId: string
  readonly wallAt: Date
  readonly systemAt: Date
  /** Its seconds for each of the wall's; 1 where it has been read once only. */
  readonly rate: number
  /** A faster rate that the last look has shown for the first time: it may have been a jump. */
  readonly seenOnce?: number
}

/** A system's clock that does not agree with the one that counts, and how far it is ahead (seconds; less than 0 where behind). */
export interface ClockApart {
  readonly systemId: string
  readonly secondsAhead: number
}

/** How far clocks that agree may be apart: some seconds of their own time, and what a slow answer adds at their rate. */
const toleranceSeconds = 5
const answerSeconds = 2

/**
 * The time that more than half of the systems keep among themselves. Where no such majority is, the time that was agreed on before
 * goes on at its own rate: one clock never rules, and none that is off by days moves what is counted in time.
 *
 * @param previous what was agreed on before; undefined at the first time
 * @param now by the wall
 */
export function agreedClock(
  readings: readonly ClockReading[],
  previous: EstateClock | undefined,
  now: Date,
): EstateClock {
  const projected = readings.map(reading => projectedTo(reading, now))
  const groups = projected.map(one => projected.filter(other => Math.abs(one.at - other.at) <= one.tolerance))
  const largest = groups.reduce<typeof projected>((most, group) => (group.length > most.length ? group : most), [])
  const isMajority = largest.length * 2 > readings.length
  const middle = [...largest].sort((a, b) => a.at - b.at)[Math.floor(largest.length / 2)]
  return isMajority && middle !== undefined
    ? { wallAt: now.toISOString(), estateAt: new Date(middle.at).toISOString(), rate: middle.reading.rate }
    : (previous ?? { wallAt: now.toISOString(), estateAt: now.toISOString(), rate: 1 })
}

const projectedTo = (reading: ClockReading, now: Date) => ({
  reading,
  at: reading.systemAt.getTime() + (now.getTime() - reading.wallAt.getTime()) * reading.rate,
  tolerance: (toleranceSeconds + answerSeconds * Math.max(1, Math.abs(reading.rate))) * 1000,
})

/** The clocks that do not agree with the one that counts. */
export function clocksApart(readings: readonly ClockReading[], clock: EstateClock, now: Date): ClockApart[] {
  const estateNow = estateTime(clock, now).getTime()
  return readings
    .map(reading => projectedTo(reading, now))
    .filter(each => Math.abs(each.at - estateNow) > each.tolerance)
    .map(each => ({ systemId: each.reading.systemId, secondsAhead: (each.at - estateNow) / 1000 }))
}

/** Whether a clock is so near another that nothing would be gained by keeping it anew. */
export const isSameClock = (one: EstateClock, other: EstateClock, now: Date): boolean =>
  Math.abs(estateTime(one, now).getTime() - estateTime(other, now).getTime()) < 250 * Math.max(1, Math.abs(one.rate)) &&
  Math.abs(one.rate - other.rate) < 0.02 * Math.max(1, Math.abs(one.rate))

const isAlike = (one: number, other: number) => Math.abs(one / other - 1) < 0.2

/**
 * A clock's rate from two looks at it; looks that agree are averaged, since an answer takes some milliseconds. A faster rate counts once
 * it has been seen twice: a clock that was set forward has gone no faster, and to run ahead of it would be to live in its future.
 */
export function rateOf(
  before: ClockReading | undefined,
  wallAt: Date,
  systemAt: Date,
): Pick<ClockReading, 'rate' | 'seenOnce'> {
  if (before === undefined) return { rate: 1 }
  const span = wallAt.getTime() - before.wallAt.getTime()
  if (span <= 0) return { rate: before.rate }
  const measured = (systemAt.getTime() - before.systemAt.getTime()) / span
  // Set back: it goes on from there as fast as before.
  if (measured < 0) return { rate: before.rate }
  const near = (rate: number) => ({ rate: Math.abs(rate - 1) < 0.05 ? 1 : rate })
  if (isAlike(measured, before.rate)) return near(before.rate * 0.8 + measured * 0.2)
  const isConfirmed = before.seenOnce !== undefined && isAlike(measured, before.seenOnce)
  return measured < before.rate || isConfirmed ? near(measured) : { rate: before.rate, seenOnce: measured }
}
