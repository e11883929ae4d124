import fc from 'fast-check'
import { capacityLadder, mostStripes, raidLayout, TooFewDomains } from '.'

/** The slow way that anyone can check: lay one stripe on the three fullest domains, then the rest. */
function laidOneByOne(chunksByDomain: readonly bigint[]): bigint {
  const [first = 0n, second = 0n, third = 0n, ...others] = [...chunksByDomain].sort((a, b) => Number(b - a))
  return third === 0n ? 0n : 1n + laidOneByOne([first - 1n, second - 1n, third - 1n, ...others])
}

test('refuses fewer domains than a stripe is wide', () =>
  expect(() => mostStripes([10n, 10n], 3)).toThrow(TooFewDomains))

test('agrees with laying stripes one by one', () => {
  const pools = fc.array(fc.bigInt(0n, 60n), { minLength: 3, maxLength: 9 })
  fc.assert(fc.property(pools, chunksByDomain => mostStripes(chunksByDomain, 3) === laidOneByOne(chunksByDomain)))
})

test('beyond doubles the count scales exactly', () => {
  const pools = fc.array(fc.bigInt(0n, 1000n), { minLength: 3, maxLength: 6 })
  const huge = 3n * 2n ** 60n
  fc.assert(
    fc.property(pools, chunks => {
      const small = mostStripes(chunks, 3)
      const large = mostStripes(
        chunks.map(count => count * huge),
        3,
      )
      return large >= small * huge && large < (small + 1n) * huge
    }),
  )
})

const sizes = fc.array(fc.bigInt(1n, 20n * 10n ** 12n), { minLength: 0, maxLength: 60 })

test('every byte of raw is accounted for once, and every drive has one place', () => {
  fc.assert(
    fc.property(
      sizes,
      fc.integer({ min: 0, max: 3 }),
      fc.integer({ min: 2, max: 20 }),
      fc.integer({ min: 0, max: 4 }),
      (bytes, parityDrives, most, spares) => {
        const layout = raidLayout(bytes, { kind: 'parity', parityDrives }, most, spares)
        if (!layout.feasible) return true
        const placed = [...layout.spareIndexes, ...layout.groups.flatMap(group => group.driveIndexes)].sort(
          (a, b) => a - b,
        )
        const sum = layout.usableBytes + layout.redundancyBytes + layout.strandedBytes + layout.spareBytes
        return (
          sum === bytes.reduce((total, size) => total + size, 0n) &&
          placed.length === bytes.length &&
          placed.every((place, index) => place === index) &&
          layout.groupSizes.every(size => size <= most) &&
          Math.max(...layout.groupSizes) - Math.min(...layout.groupSizes) <= 1
        )
      },
    ),
  )
})

test('the ladder adds up to raw', () => {
  const amount = fc.bigInt(0n, 10n ** 15n)
  fc.assert(
    fc.property(amount, amount, amount, amount, amount, (usable, redundancy, stranded, spare, kept) => {
      const rungs = capacityLadder({
        rawBytes: usable + redundancy + stranded + spare,
        spareBytes: spare,
        redundancyBytes: redundancy,
        strandedBytes: stranded,
        metadataBytes: kept,
        snapshotReserveBytes: kept / 3n,
        writtenBytes: 5n,
      })
      const taken = rungs.reduce((sum, rung) => sum + rung.takenBytes, 0n)
      return (
        taken + (rungs.at(-1)?.bytes ?? 0n) === usable + redundancy + stranded + spare &&
        rungs.slice(1).every(rung => rung.sum.reduce((sum, item) => sum + item.bytes, 0n) === rung.takenBytes)
      )
    }),
  )
})

test('of any width: so many stripes fit and not one more, in doubles and beyond them', () => {
  const cases = fc.record({
    width: fc.integer({ min: 1, max: 12 }),
    counts: fc.array(fc.bigInt({ min: 0n, max: 5000n }), { minLength: 12, maxLength: 40 }),
    scale: fc.constantFrom(1n, 1n << 60n),
  })
  fc.assert(
    fc.property(cases, ({ width, counts, scale }) => {
      const chunks = counts.map(count => count * scale)
      const most = mostStripes(chunks, width)
      const fits = (stripes: bigint) =>
        chunks.reduce((sum, count) => sum + (count < stripes ? count : stripes), 0n) >= BigInt(width) * stripes
      return fits(most) && !fits(most + 1n)
    }),
  )
})
