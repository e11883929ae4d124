import fc from 'fast-check'
import { samplePool } from '../estate/testing/samples'
import { dailyLevels } from '../metrics'
import {
  asItIs,
  compositionOf,
  fanOn,
  groupBytes,
  growthOver,
  limitRatio,
  outlookOf,
  reachesAfter,
  reliefOf,
  type Outlook,
  type Supposed,
} from '.'

const day = 86_400_000
const monday = Date.UTC(2026, 4, 4)
const levelsOf = (values: readonly number[]) => {
  const found = dailyLevels(values.map((value, index) => ({ at: monday + index * day + 5, value })))
  if (found === undefined) throw new Error('There are levels.')
  return found
}
const known = (values: readonly number[], full: number): Outlook => {
  const found = outlookOf(levelsOf(values), full)
  if ('why' in found) throw new Error(found.why)
  return found
}
/** A thousand a day, a little uneven. */
const growing = Array.from({ length: 120 }, (_, at) => 100_000 + at * 1000 + ((at * 7919) % 13) * 20)

test('a pool that grows by a thousand a day reaches nine tenths of it on the day that division gives, and all of it later', () => {
  const found = known(growing, 300_000)
  const left = (270_000 - (growing.at(-1) ?? 0)) / 1000
  expect(found.today).toBe(monday + 119 * day)
  expect(found.slopeBytesPerDay / 1000).toBeCloseTo(1, 1)
  expect(Math.abs((found.reachesLimit.p50 ?? 0) - left)).toBeLessThan(2)
  expect(Math.abs((found.reachesFull.p50 ?? 0) - left - 30)).toBeLessThan(2)
  expect(found.reachesLimit.p90 ?? 0).toBeLessThanOrEqual(found.reachesLimit.p50 ?? 0)
  expect(found.tried).toBe(12)
  expect(found.held).toBeGreaterThan(6)
})

test('what is past its limit has reached it today; what stands still never does', () => {
  expect(known(growing, 200_000).reachesLimit).toEqual({ p10: 0, p50: 0, p90: 0 })
  const still = known(
    Array.from({ length: 60 }, () => 5),
    100,
  )
  expect(still.reachesLimit).toEqual({ p10: null, p50: null, p90: null })
})

test('of too few days nothing is said but what is used', () =>
  expect(outlookOf(levelsOf([1, 2, 3]), 100)).toMatchObject({ why: 'too few days', usedBytes: 3, limitBytes: 90 }))

test('relief moves the day: what goes at once by its share of the growth, what grows elsewhere for ever', () => {
  const found = known(growing, 300_000)
  const before = found.reachesLimit.p50 ?? 0
  expect(reachesAfter(found, { bytes: 0, bytesPerDay: 0 }, limitRatio)).toEqual(found.reachesLimit)
  const deleted = reachesAfter(found, { bytes: 10_000, bytesPerDay: 0 }, limitRatio).p50 ?? 0
  expect(Math.abs(deleted - before - 10)).toBeLessThanOrEqual(1)
  const moved = reachesAfter(found, { bytes: 0, bytesPerDay: found.slopeBytesPerDay }, limitRatio).p50
  expect(moved).toBeNull()
  const bought = reachesAfter(found, { bytes: 0, bytesPerDay: 0, roomBytes: 10_000 }, limitRatio).p50 ?? 0
  expect(Math.abs(bought - before - 9)).toBeLessThanOrEqual(1)
})

test('what is supposed moves the day as division says: groups by their room, growth and reduction by what comes', () => {
  const found = known(growing, 300_000)
  const pool = samplePool({ usableBytes: 300_000n, groupSizes: [11, 11, 11] })
  const own = { metadataBytes: 0n, snapshotReserveBytes: 0n, rebuildReserveBytes: 0n }
  const day = (more: Partial<Supposed>) =>
    reachesAfter(found, reliefOf({ ...pool, ...own }, found, { ...asItIs, ...more }), limitRatio).p50
  const before = found.reachesLimit.p50 ?? 0
  expect(day({})).toBe(before)
  // A third more of 300,000 is 100,000, of which nine tenths count.
  expect(Math.abs((day({ groups: 1 }) ?? 0) - before - 90)).toBeLessThanOrEqual(2)
  expect(Math.abs((day({ growthPercent: 200 }) ?? 0) - before / 2)).toBeLessThanOrEqual(2)
  expect(Math.abs((day({ growthPercent: 200, sparedPercent: 50 }) ?? 0) - before)).toBeLessThanOrEqual(1)
  expect(day({ sparedPercent: 100 })).toBeNull()
  expect(groupBytes({ ...pool, ...own, groupSizes: [] })).toBe(0)
})

test('more room, less growth and more that is spared never bring the day nearer', () => {
  const found = known(growing, 300_000)
  const pool = samplePool({ groupSizes: [11, 11] })
  const end = (supposed: Supposed) => reachesAfter(found, reliefOf(pool, found, supposed), limitRatio).p50 ?? Infinity
  const some = fc.record({
    groups: fc.nat(3),
    growthPercent: fc.integer({ min: 0, max: 300 }),
    sparedPercent: fc.integer({ min: 0, max: 100 }),
    goneTebibytes: fc.constant(0),
  })
  fc.assert(
    fc.property(some, some, (a, b) => {
      const best = {
        groups: Math.max(a.groups, b.groups),
        growthPercent: Math.min(a.growthPercent, b.growthPercent),
        sparedPercent: Math.max(a.sparedPercent, b.sparedPercent),
        goneTebibytes: 0,
      }
      expect(end(best)).toBeGreaterThanOrEqual(end(a))
    }),
  )
})

test('between the days that are kept the fan is straight', () => {
  const found = known(growing, 300_000)
  const [a, b] = [fanOn(found, 60), fanOn(found, 365)]
  expect(fanOn(found, 212.5).p50).toBeCloseTo((a.p50 + b.p50) / 2, 3)
  expect(fanOn(found, 0)).toMatchObject({ p10: found.usedBytes, p90: found.usedBytes })
})

test('growth is told over the last days only', () => {
  expect(growthOver(Float64Array.from([0, 0, 10, 20, 30]), 2)).toBe(10)
  expect(growthOver(Float64Array.from([5]), 28)).toBe(0)
})

test('every byte of a pool stands under one name: whatever its snapshots hold, the parts add up to its drives', () => {
  const bytes = fc.bigInt({ min: 0n, max: 10n ** 15n })
  fc.assert(
    fc.property(fc.array(bytes, { minLength: 12, maxLength: 12 }), ([a, b, c, d, e, f, g, h, i, j, k, l]) => {
      const [live = 0n, clones = 0n, holding = 0n, beyond = 0n, free = 0n, metadata = 0n] = [a, b, c, d, e, f]
      const [reserve = 0n, held = 0n, rebuild = 0n, redundancy = 0n, stranded = 0n, spares = 0n] = [g, h, i, j, k, l]
      const written = live + clones + holding + beyond
      const usable = written + free + metadata + reserve + rebuild
      const pool = samplePool({
        ...{ usableBytes: usable, writtenBytes: written, metadataBytes: metadata, snapshotReserveBytes: reserve },
        ...{ snapshotBytes: held, rebuildReserveBytes: rebuild, redundancyBytes: redundancy },
        ...{ strandedBytes: stranded, spareBytes: spares, rawBytes: usable + redundancy + stranded + spares },
      })
      const parts = compositionOf(pool, { live, clones, holding })
      expect(parts.reduce((sum, [, each]) => sum + each, 0n)).toBe(pool.rawBytes)
      expect(parts.every(([, each]) => each > 0n)).toBe(true)
    }),
  )
})

test('a pool past its limit has nothing free to it, and what is left is its last tenth', () => {
  const pool = samplePool({ usableBytes: 100n, writtenBytes: 95n, rawBytes: 100n })
  const zero = { metadataBytes: 0n, snapshotReserveBytes: 0n, rebuildReserveBytes: 0n, snapshotBytes: 0n }
  const bare = { ...pool, ...zero, redundancyBytes: 0n, strandedBytes: 0n, spareBytes: 0n }
  expect(compositionOf(bare, { live: 90n, clones: 0n, holding: 5n })).toEqual([
    ['live', 90n],
    ['holding', 5n],
    ['last tenth', 5n],
  ])
})
