import fc from 'fast-check'
import { seeded } from '../testing/seeded'
import { forecastGrowth, type GrowthForecast } from '.'
import { widening } from './forecastGrowth'
import { medianInPlace, SlopeHint, theilSenSlope } from './theilSen'

const tebi = 2 ** 40
const weekdays = [1.4, 1.2, 1, 1.1, 1.3, 0.3, 0.2]
interface Course {
  readonly days: number
  readonly growth: number
  readonly noise: number
  readonly isWeekly: boolean
  readonly step?: { readonly day: number; readonly bytes: number }
}
/** Used bytes of a made-up course: growth, the week, noise that stays, and a step. */
function course({ days, growth, noise, isWeekly, step }: Course, seed: number): number[] {
  const random = seeded(seed)
  let used = 40 * tebi
  return Array.from({ length: days }, (_, day) => {
    const grown = growth * (isWeekly ? (weekdays[day % 7] ?? 1) : 1)
    used += grown + (random() + random() + random() - 1.5) * noise + (step?.day === day ? step.bytes : 0)
    return used
  })
}
const said = (bytes: readonly number[], limit: number, horizon: number): GrowthForecast => {
  const found = forecastGrowth({ firstWeekday: 0, bytes }, limit, horizon)
  if ('why' in found) throw new Error(found.why)
  return found
}

test('a line that grows is full on the day on which it reaches its limit', () => {
  const bytes = Array.from({ length: 120 }, (_, day) => (100 + day) * tebi)
  const found = said(bytes, 250 * tebi, 90)
  expect(found.slopeBytesPerDay).toBeCloseTo(tebi, -3)
  expect(found.daysToFull).toEqual({ p10: 31, p50: 31, p90: 31 })
  expect(found.fan).toHaveLength(90)
})

test('what shrinks or stands still is not full within the horizon, and never on a huge day', () => {
  const flat = Array.from({ length: 60 }, () => 40 * tebi)
  expect(said(flat, 80 * tebi, 365).daysToFull).toEqual({ p10: null, p50: null, p90: null })
  const shrinking = flat.map((each, day) => each - day * 1e9)
  expect(said(shrinking, 80 * tebi, 365).daysToFull.p50).toBeNull()
})

test('a step starts anew: what was before it says nothing of the growth', () => {
  const bytes = course(
    { days: 120, growth: 0.1 * tebi, noise: 0.01 * tebi, isWeekly: false, step: { day: 80, bytes: 20 * tebi } },
    7,
  )
  const found = said(bytes, 100 * tebi, 60)
  expect(found.startDay).toBe(80)
  expect(found.windowDays).toBeLessThanOrEqual(40)
  expect(found.slopeBytesPerDay / tebi).toBeCloseTo(0.1, 1)
})

test('too little is known for a forecast, and why', () => {
  expect(forecastGrowth({ firstWeekday: 0, bytes: [1, 2, 3] }, 10, 30)).toEqual({ why: 'too few days' })
  const stepped = course({ days: 90, growth: 1e9, noise: 1e8, isWeekly: false, step: { day: 85, bytes: tebi } }, 3)
  expect(forecastGrowth({ firstWeekday: 0, bytes: stepped }, 90 * tebi, 30)).toEqual({
    why: 'too few days since a step',
  })
})

/** Of how many days of past courses lie within the fan, and by how much the day of filling is missed. */
function tried(options: Omit<Course, 'days'>, count: number) {
  const horizon = 30
  let inside = 0
  const misses: number[] = []
  for (let seed = 1; seed <= count; seed += 1) {
    const whole = course({ ...options, days: 120 + horizon * 2 }, seed)
    const known = whole.slice(0, 120)
    const limit = whole[119 + horizon] ?? 0
    const found = said(known, limit, horizon * 2)
    const point = found.fan[horizon - 1]
    if (point !== undefined && limit >= point.p10 && limit <= point.p90) inside += 1
    const truth = whole.slice(120).findIndex(each => each >= limit) + 1
    misses.push(Math.abs((found.daysToFull.p50 ?? horizon * 2) - truth) / truth)
  }
  return { covered: inside / count, median: misses.sort((a, b) => a - b)[count >> 1] ?? 1 }
}

const kinds: readonly Omit<Course, 'days'>[] = [
  { growth: 0.1 * tebi, noise: 0.02 * tebi, isWeekly: false },
  { growth: 0.1 * tebi, noise: 0.05 * tebi, isWeekly: false },
  { growth: 0.1 * tebi, noise: 0.02 * tebi, isWeekly: true },
  { growth: 0.1 * tebi, noise: 0.05 * tebi, isWeekly: true, step: { day: 30, bytes: 15 * tebi } },
]

test('of generated courses the fan covers four fifths of what comes, and the day of filling is near', () => {
  const results = kinds.map(kind => tried(kind, 150))
  for (const { covered, median } of results) {
    expect(median).toBeLessThan(0.15)
    expect(covered).toBeGreaterThan(0.7)
  }
  const covered = results.reduce((sum, each) => sum + each.covered, 0) / results.length
  expect(covered).toBeGreaterThan(0.75)
  expect(covered).toBeLessThan(0.85)
})

test('few errors are widened by what is known to lie beyond them, many are not', () => {
  expect(widening(3)).toBeCloseTo(2.44, 1)
  expect(widening(1000)).toBeCloseTo(1, 2)
  expect(widening(0.5)).toBe(widening(2))
})

test('the median of any values is the one that sorting gives', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.oneof(fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e9, max: 1e9 }), fc.constantFrom(1, 2)),
        {
          minLength: 1,
          maxLength: 3000,
          size: 'max',
        },
      ),
      values => {
        const sorted = values.toSorted((a, b) => a - b)
        const [low = 0, high = 0] = [sorted[(values.length - 1) >> 1], sorted[values.length >> 1]]
        expect(medianInPlace(Float64Array.from(values), values.length)).toBe((low + high) / 2)
      },
    ),
    { numRuns: 200 },
  )
})

test('the slope is the median of all pairs, whatever the fits before have left as a hint', () => {
  const day = fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 })
  const series = fc.array(
    fc.array(fc.oneof(day, fc.constantFrom(1, 2)), { minLength: 2, maxLength: 84, size: 'max' }),
    {
      minLength: 1,
      maxLength: 5,
    },
  )
  fc.assert(
    fc.property(series, all => {
      const hint = new SlopeHint()
      for (const days of all) {
        const values = Float64Array.from(days)
        const slopes = days.flatMap((value, at) =>
          days.slice(0, at).map((before, from) => (value - before) / (at - from)),
        )
        const sorted = slopes.sort((a, b) => a - b)
        const [low = 0, high = 0] = [sorted[(sorted.length - 1) >> 1], sorted[sorted.length >> 1]]
        const found = theilSenSlope(values, new Float64Array(3486), hint)
        expect(Math.abs(found - (low + high) / 2)).toBeLessThanOrEqual(
          1e-9 * Math.max(1, Math.abs(low), Math.abs(high)),
        )
      }
    }),
    { numRuns: 150 },
  )
})
