import fc from 'fast-check'
import { movedPieces, placer, TooFewPlaces, type PlacementDomain } from '.'

const domain = (id: string, ...chunks: readonly number[]): PlacementDomain => ({
  id,
  drives: chunks.map((each, index) => ({ id: `${id}/${index}`, chunks: each })),
})
const equal = (count: number, drives: number, chunks = 1000) =>
  Array.from({ length: count }, (_, index) => domain(`n${index}`, ...Array.from({ length: drives }, () => chunks)))

/** Pieces on each domain, counted. */
function byDomain(domains: readonly PlacementDomain[], width: number, stripes: number): number[] {
  const { placeAll, domainOf } = placer(domains, width)
  const places = placeAll(stripes)
  return domains.map((_, index) => places.filter(drive => domainOf[drive] === index).length)
}

const estates = fc.record({
  chunks: fc.array(fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 1, maxLength: 5 }), {
    minLength: 3,
    maxLength: 9,
  }),
  width: fc.integer({ min: 1, max: 5 }),
})

test('the pieces of a stripe always stand in different domains, on drives that hold something', () => {
  fc.assert(
    fc.property(estates, fc.nat({ max: 1e6 }), ({ chunks, width }, stripe) => {
      const domains = chunks.map((each, index) => domain(`d${index}`, ...each))
      const holding = chunks.filter(each => each.some(count => count > 0)).length
      if (holding < width) return expect(() => placer(domains, width)).toThrow(TooFewPlaces)
      const { place, domainOf } = placer(domains, width)
      const drives = place(stripe)
      expect(new Set(drives.map(drive => domainOf[drive])).size).toBe(width)
      expect(drives.every(drive => (chunks.flat()[drive] ?? 0) > 0)).toBe(true)
    }),
  )
})

test('placing is deterministic, and placing all is placing each', () => {
  const domains = equal(6, 4)
  const all = placer(domains, 3).placeAll(50)
  for (let stripe = 0; stripe < 50; stripe += 1)
    expect([...all.subarray(stripe * 3, stripe * 3 + 3)]).toEqual(placer(domains, 3).place(stripe))
})

test('many stripes, which are drawn four drives at once, stand where each by itself does', () => {
  fc.assert(
    fc.property(estates, ({ chunks, width }) => {
      const domains = chunks.map((each, index) => domain(`d${index}`, ...each, 7))
      const { place, placeAll } = placer(domains, Math.min(width, domains.length))
      const stripes = 300
      const all = placeAll(stripes)
      const each = Array.from({ length: stripes }, (_, stripe) => place(stripe))
      expect([...all]).toEqual(each.flat())
    }),
    { numRuns: 40 },
  )
})

test('where nothing can run but what is written out, stripes stand at the same places', () => {
  const domains = equal(6, 5)
  const wanted = placer(domains, 3).placeAll(400)
  const had = Object.getOwnPropertyDescriptor(globalThis, 'WebAssembly')
  Object.defineProperty(globalThis, 'WebAssembly', { value: undefined, configurable: true })
  try {
    expect(placer(domains, 3).placeAll(400)).toEqual(wanted)
  } finally {
    if (had !== undefined) Object.defineProperty(globalThis, 'WebAssembly', had)
  }
})

test.each([
  ['alike', equal(8, 6), 4],
  ['one of half the size', [...equal(7, 6), domain('small', 1000, 1000, 1000)], 4],
  ['one of twice the size', [...equal(7, 6), domain('large', ...Array.from({ length: 12 }, () => 1000))], 3],
  [
    'all of different sizes',
    [3, 4, 5, 6, 7, 8, 9].map(count => domain(`n${count}`, ...Array.from({ length: count }, () => 500))),
    3,
  ],
  [
    'drives of two sizes in each',
    Array.from({ length: 6 }, (_, index) => domain(`m${index}`, 2000, 2000, 1000, 1000)),
    2,
  ],
])('domains take shares within 5% of their capacity at 10,000 stripes: %s', (_, domains, width) => {
  const held = domains.map(each => each.drives.reduce((sum, drive) => sum + drive.chunks, 0))
  const total = held.reduce((sum, chunks) => sum + chunks, 0)
  byDomain(domains, width, 10_000).forEach((pieces, index) => {
    const share = ((held[index] ?? 0) / total) * width * 10_000
    expect(Math.abs(pieces / share - 1)).toBeLessThan(0.05)
  })
})

test('a domain with more than it can use takes one piece of every stripe, and no more', () => {
  const domains = [...equal(3, 2, 100), domain('huge', 5000, 5000)]
  const counts = byDomain(domains, 2, 10_000)
  expect(counts[3]).toBeGreaterThan(9_900)
  expect(counts[3]).toBeLessThanOrEqual(10_000)
})

test('within a domain, drives take shares by their size', () => {
  const domains = Array.from({ length: 3 }, (_, index) => domain(`m${index}`, 3000, 1000))
  const { placeAll } = placer(domains, 3)
  const places = placeAll(10_000)
  const [large = 0, small = 0] = [0, 1].map(drive => places.filter(each => each === drive).length)
  expect(large / small).toBeGreaterThan(2.8)
  expect(large / small).toBeLessThan(3.2)
})

test('one drive more moves less than 1.3 times its share', () => {
  const before = equal(10, 8)
  const after = before.map((each, index) =>
    index === 4 ? domain('n4', ...Array.from({ length: 9 }, () => 1000)) : each,
  )
  const old = placer(before, 4)
  const now = placer(after, 4)
  // Drives are counted anew after the one that joined: names are compared.
  const named = (ids: readonly string[], places: Int32Array) =>
    places.map(drive => after.flatMap(each => each.drives).findIndex(drive2 => drive2.id === ids[drive]))
  const stripes = 10_000
  const moved = movedPieces(named(old.driveIds, old.placeAll(stripes)), named(now.driveIds, now.placeAll(stripes)), 4)
  const share = (stripes * 4) / 81
  expect(moved).toBeGreaterThan(share * 0.8)
  expect(moved).toBeLessThan(share * 1.3)
})

test('a drive that leaves moves its own pieces and no others, where all domains stay alike', () => {
  const before = equal(6, 5)
  const old = placer(before, 3)
  const gone = 7
  const after = before.map(each => ({
    ...each,
    drives: each.drives.map(drive => (drive.id === old.driveIds[gone] ? { ...drive, chunks: 0 } : drive)),
  }))
  const places = old.placeAll(5_000)
  const moved = movedPieces(places, placer(after, 3).placeAll(5_000), 3)
  const own = places.filter(drive => drive === gone).length
  expect(moved).toBeGreaterThanOrEqual(own)
  expect(moved).toBeLessThan(own * 1.3)
})
