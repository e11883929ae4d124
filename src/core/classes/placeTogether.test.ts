import fc from 'fast-check'
import { sampleId, samplePool } from '../estate/testing/samples'
import type { Pool } from '../estate'
import { cheapestOf, fixedParts, rankedPool } from './rankPools'
import { placeTogether, type Wanted } from '.'

const tebibyte = 1024n ** 4n
const asked = { isThin: false, serviceClass: undefined, answering: new Set([sampleId(1)]) }
const poolOf = (number: number, capacity: bigint, written: bigint, isFlash: boolean): Pool =>
  samplePool({
    id: sampleId(number),
    name: `pool-${number}`,
    rawBytes: (capacity * 13n) / 10n,
    usableBytes: capacity,
    writtenBytes: written,
    provisionedBytes: written,
    groupSizes: [12],
    driveKind: isFlash ? { media: 'SSD', protocol: 'NVMe' } : { media: 'HDD', protocol: 'SAS' },
  })
const pools = fc
  .array(
    fc.record({
      capacity: fc.integer({ min: 4, max: 40 }),
      written: fc.integer({ min: 0, max: 30 }),
      isFlash: fc.boolean(),
    }),
    { minLength: 2, maxLength: 3 },
  )
  .map(all =>
    all.map(({ capacity, written, isFlash }, index) =>
      poolOf(index + 1, BigInt(capacity) * tebibyte, (BigInt(written) * tebibyte) / 4n, isFlash),
    ),
  )
const wanted = fc
  .array(fc.integer({ min: 1, max: 24 }), { minLength: 1, maxLength: 5 })
  .map(all => all.map((size, index): Wanted => ({ name: `v-${index}`, sizeBytes: (BigInt(size) * tebibyte) / 4n })))

/** The slow way that anyone can check: every pool for every volume, and the best of all that. */
function everyWay(volumes: readonly Wanted[], all: readonly Pool[]): { score: number; placed: number } {
  const cheapest = cheapestOf(all)
  let best = { score: 0, placed: 0 }
  const given = all.map(() => ({ bytes: 0n, count: 0 }))
  const judge = (placed: number) => {
    let score = 0
    for (const [index, pool] of all.entries()) {
      const { bytes, count } = given[index] ?? { bytes: 0n, count: 0 }
      if (count === 0) continue
      const full = { ...pool, writtenBytes: pool.writtenBytes + bytes, provisionedBytes: pool.provisionedBytes + bytes }
      const ranked = rankedPool(full, { ...asked, sizeBytes: 0n }, fixedParts(pool, cheapest, {}))
      if (ranked.out.length > 0 || full.writtenBytes > pool.usableBytes) return
      score += count * ranked.score
    }
    if (placed > best.placed || (placed === best.placed && score > best.score)) best = { score, placed }
  }
  const from = (index: number, placed: number) => {
    const volume = volumes[index]
    if (volume === undefined) return judge(placed)
    for (const each of given) {
      each.bytes += volume.sizeBytes
      each.count += 1
      from(index + 1, placed + 1)
      each.bytes -= volume.sizeBytes
      each.count -= 1
    }
    from(index + 1, placed)
  }
  from(0, 0)
  return best
}

test('it comes within 3% of the best of all ways, and no pool is given more than it has', () => {
  fc.assert(
    fc.property(wanted, pools, (volumes, all) => {
      const { poolIds, score } = placeTogether(volumes, all, asked)
      for (const pool of all) {
        const given = volumes.reduce(
          (sum, { sizeBytes }, index) => (poolIds[index] === pool.id ? sum + sizeBytes : sum),
          pool.writtenBytes,
        )
        if (poolIds.includes(pool.id)) expect(given <= pool.usableBytes).toBe(true)
      }
      const best = everyWay(volumes, all)
      // Where not all find room, which are left out is another question.
      if (best.placed === volumes.length && poolIds.every(id => id !== undefined))
        expect(score).toBeGreaterThanOrEqual(best.score * 0.97)
    }),
    { numRuns: 60 },
  )
})

test('where all can be placed they nearly always are, and the same estate gives the same answer', () => {
  const all = [
    poolOf(1, 40n * tebibyte, 0n, true),
    poolOf(2, 40n * tebibyte, 0n, true),
    poolOf(3, 20n * tebibyte, 18n * tebibyte, false),
  ]
  const volumes = Array.from({ length: 30 }, (_, index): Wanted => ({ name: `v-${index}`, sizeBytes: tebibyte }))
  const { poolIds } = placeTogether(volumes, all, asked)
  expect(poolIds.every(id => id !== undefined)).toBe(true)
  const count = (number: number) => poolIds.filter(id => id === sampleId(number)).length
  expect(Math.abs(count(1) - count(2))).toBeLessThanOrEqual(2)
  expect(placeTogether(volumes, all, asked).poolIds).toEqual(poolIds)
  expect(placeTogether([{ name: 'x', sizeBytes: 100n * tebibyte }], all, asked).poolIds).toEqual([undefined])
})
