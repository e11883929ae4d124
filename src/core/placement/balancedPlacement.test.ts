import fc from 'fast-check'
import { pieceChunks, reachableLayout } from '../layout'
import { balancedPlacement, movedPieces, type PlacementDomain } from '.'

const sets = 4096
const gib = 1n << 30n
const domainsOf = (...drives: readonly (readonly number[])[]): PlacementDomain[] =>
  drives.map((own, domain) => ({
    id: `d${domain}`,
    drives: own.map((chunks, drive) => ({ id: `d${domain}/${drive}`, chunks })),
  }))
const equal = (domains: number, drives: number, chunks = 3725) =>
  domainsOf(...Array.from({ length: domains }, () => Array<number>(drives).fill(chunks)))
const pieceOf = (domains: readonly PlacementDomain[], width: number) =>
  pieceChunks(
    domains.map(domain => domain.drives.map(({ chunks }) => ({ chunks, count: 1 }))),
    width,
    sets,
  )

/** The fullest drive when every set is full, as a part of its size; and that no two pieces of a set share a domain. */
function fullest(domains: readonly PlacementDomain[], width: number, places: Int32Array): number {
  const drives = domains.flatMap((domain, index) => domain.drives.map(({ chunks }) => ({ chunks, domain: index })))
  const loads = new Int32Array(drives.length)
  let sharing = 0
  for (let at = 0; at < places.length; at += width) {
    const own = [...places.subarray(at, at + width)]
    if (new Set(own.map(drive => drives[drive]?.domain)).size !== width) sharing += 1
    for (const drive of own) loads[drive] = (loads[drive] ?? 0) + 1
  }
  expect(sharing).toBe(0)
  const piece = pieceOf(domains, width)
  return Math.max(...drives.map(({ chunks }, drive) => ((loads[drive] ?? 0) * piece) / Math.max(1e-9, chunks)))
}

test.each<[string, PlacementDomain[], number]>([
  ['five nodes, 2+1', equal(5, 8), 3],
  ['five uneven nodes, 3+2', domainsOf(...[8, 7, 8, 7, 8].map(count => Array<number>(count).fill(3725))), 5],
  ['old drives among new ones', domainsOf([4, 4, 2, 2], [4, 4, 4, 4], [4, 2, 2, 2], [4, 4, 4]), 3],
  ['one node much larger', domainsOf([9, 9, 9, 9], [3, 3], [3, 3], [3, 3]), 3],
  ['64 nodes of 24 drives, 8+3', equal(64, 24, 16_763), 11],
])('%s: with all that is stated as usable written, no drive is above its size', (_, domains, width) => {
  expect(fullest(domains, width, balancedPlacement(domains, width, sets))).toBeLessThanOrEqual(1 + 1e-9)
})

test('what is stated as usable is nearly all that single chunks would give', () => {
  const layout = (nodes: number, drives: number, bytes: bigint, scheme: { dataPieces: number; parityPieces: number }) =>
    reachableLayout(
      Array.from({ length: nodes }, (_, id) => ({ id: `${id}`, drives: [{ bytes, count: drives }] })),
      { kind: 'erasure', ...scheme },
      gib,
      sets,
    )
  const lost = ({ unevenChunks, stripes }: ReturnType<typeof layout>, width: number) =>
    Number(unevenChunks) / Number(stripes * BigInt(width))
  expect(lost(layout(5, 8, 4_000_787_030_016n, { dataPieces: 2, parityPieces: 1 }), 3)).toBeLessThan(0.004)
  expect(lost(layout(64, 24, 18_000_207_937_536n, { dataPieces: 8, parityPieces: 3 }), 11)).toBeLessThan(0.03)
})

/** Pieces that have to move at the least: those of a drive that leaves, or the share of one that comes. */
const share = (domains: readonly PlacementDomain[], width: number, drive: number) => {
  const drives = domains.flatMap(domain => domain.drives)
  const total = drives.reduce((sum, each) => sum + each.chunks, 0)
  return ((drives[drive]?.chunks ?? 0) / total) * width * sets
}

test.each<[string, PlacementDomain[], number]>([
  ['even nodes', equal(6, 8), 5],
  ['uneven nodes', domainsOf([4, 4, 4, 4], [4, 4, 4], [4, 4, 2], [4, 4, 4, 4], [4, 2, 2]), 3],
  ['many drives with few pieces each', equal(32, 12), 11],
])('%s: a drive that leaves and one that comes move at most 1.3 times the least', (_, domains, width) => {
  const before = balancedPlacement(domains, width, sets)
  const count = domains.reduce((sum, domain) => sum + domain.drives.length, 0)
  const leaving = domains[0]?.drives.length ?? 1
  // The last drive of the first domain leaves: the drives after it are counted one less.
  const without = domains.map((domain, index) =>
    index === 0 ? { ...domain, drives: domain.drives.slice(0, -1) } : domain,
  )
  const gone = leaving - 1
  const counted = before.map(drive => (drive === gone ? -1 : drive > gone ? drive - 1 : drive))
  const after = balancedPlacement(without, width, sets, counted)
  const held = before.filter(drive => drive === gone).length
  expect(fullest(without, width, after)).toBeLessThanOrEqual(1 + 1e-9)
  expect(movedPieces(counted, after, width)).toBeLessThanOrEqual(1.3 * held)
  // And comes back, empty.
  const again = Int32Array.from(after, drive => (drive >= gone ? drive + 1 : drive))
  const back = balancedPlacement(domains, width, sets, again)
  expect(fullest(domains, width, back)).toBeLessThanOrEqual(1 + 1e-9)
  expect(movedPieces(again, back, width)).toBeLessThanOrEqual(1.3 * share(domains, width, gone) + 1)
  expect(count).toBeGreaterThan(width)
})

test('any domains: placed whole, on different domains, within what each drive holds, and the same each time', () => {
  const drives = fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 5 })
  const estates = fc.array(drives, { minLength: 3, maxLength: 8 })
  fc.assert(
    fc.property(estates, fc.integer({ min: 1, max: 3 }), (given, width) => {
      const domains = domainsOf(...given.map(own => own.map(chunks => chunks * 100)))
      const places = balancedPlacement(domains, width, sets)
      expect(fullest(domains, width, places)).toBeLessThanOrEqual(1 + 1e-9)
      const again = balancedPlacement(domains, width, sets)
      expect(again.every((drive, at) => drive === places[at]) && again.length === places.length).toBe(true)
      expect(movedPieces(places, balancedPlacement(domains, width, sets, places), width)).toBe(0)
    }),
    { numRuns: 25 },
  )
})
