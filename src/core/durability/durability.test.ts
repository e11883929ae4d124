import fc from 'fast-check'
import { lossProbability, meanHoursToLoss, poolDurability, poolLossProbability, yearHours } from '.'

const group = fc.record({
  drives: fc.integer({ min: 5, max: 24 }),
  parityDrives: fc.integer({ min: 0, max: 3 }),
  annualFailureRate: fc.double({ min: 1e-4, max: 0.5, noNaN: true }),
  rebuildHours: fc.double({ min: 0.01, max: 500, noNaN: true }),
  repair: fc.constantFrom('serial' as const, 'parallel' as const),
  bitErrorRate: fc.constantFrom(0, 1e-17, 1e-15),
  bitsReadToRebuild: fc.bigInt(0n, 10n ** 15n),
})

test('a loss is a probability, and grows with time', () => {
  fc.assert(
    fc.property(group, one => {
      const year = lossProbability(one, yearHours)
      const fiveYears = lossProbability(one, 5 * yearHours)
      return year > 0 && year <= fiveYears && fiveYears <= 1
    }),
  )
})

test('where loss is rare, its probability is the time over the mean time to loss', () => {
  fc.assert(
    fc.property(group, one => {
      const expected = yearHours / meanHoursToLoss(one)
      fc.pre(expected < 1e-6)
      // The start in state 0 delays the first loss by a few rebuild times, hence the slack.
      return Math.abs(lossProbability(one, yearHours) / expected - 1) < 1e-6 + (10 * one.rebuildHours) / yearHours
    }),
  )
})

test('one more parity drive never harms', () => {
  fc.assert(
    fc.property(group, one => {
      fc.pre(one.parityDrives < 3 && one.bitErrorRate === 0)
      return (
        lossProbability({ ...one, parityDrives: one.parityDrives + 1 }, yearHours) <=
        lossProbability(one, yearHours) * (1 + 1e-9)
      )
    }),
  )
})

test('a pool of one group is that group', () => expect(poolLossProbability(1e-18, 1)).toBeCloseTo(1e-18, 30))

test('a pool keeps what its groups are: equal groups multiply the small probability', () => {
  const reliability = { annualFailureRate: 0.01, bitErrorRate: 0 }
  const one = poolDurability([11], { kind: 'parity', parityDrives: 2 }, 7_680_000_000_000n, 1e9, reliability)
  const two = poolDurability([11, 11], { kind: 'parity', parityDrives: 2 }, 7_680_000_000_000n, 1e9, reliability)
  expect(two.fiveYears / one.fiveYears).toBeCloseTo(2, 6)
  expect(two.survivedLosses).toBe(2)
  expect(one.rebuildHours).toBeCloseTo(7680 / 3600, 9)
})

test('a mirror is as safe as its sets', () => {
  const reliability = { annualFailureRate: 0.01, bitErrorRate: 0 }
  const sets = poolDurability([6, 6], { kind: 'mirror', copies: 2 }, 4_000_000_000_000n, 2e8, reliability)
  const pair = poolDurability([2], { kind: 'mirror', copies: 2 }, 4_000_000_000_000n, 2e8, reliability)
  expect(sets.oneYear / pair.oneYear).toBeCloseTo(6, 3)
})
