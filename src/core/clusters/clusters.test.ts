import fc from 'fast-check'
import {
  clusterDurability,
  clusterLayout,
  domainOf,
  lacking,
  layBanks,
  lossTolerance,
  piecesOf,
  schemeWords,
  spreadMove,
  spreadRebuild,
  suggestedRole,
  unevenness,
  widthOf,
  writeCost,
  type LayoutWish,
} from '.'
import { placer } from '../placement'
import { sampleDrive, sampleNode, sampleNodePort } from '../estate/testing/samples'

const terabyte = 1_000_000_000_000n
const disk = (node: number, bay: number, bytes = 4n * terabyte) =>
  sampleDrive(node * 100 + bay, {
    nodeId: sampleNode(node).id,
    media: 'HDD',
    protocol: 'SAS',
    rotationSpeedRpm: 7200,
    bay,
    capacityBytes: bytes,
  })
const wish: LayoutWish = {
  domain: 'node',
  scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
  keepsRebuildReserve: true,
  snapshotShareRatio: 0.1,
}
const parts = (nodes: number, drives: number, bytes = 4n * terabyte) => ({
  nodes: Array.from({ length: nodes }, (_, index) => sampleNode(index + 1)),
  cache: Array.from({ length: nodes }, (_, index) =>
    sampleDrive(9000 + index, { nodeId: sampleNode(index + 1).id, capacityBytes: 800_000_000_000n }),
  ),
  capacity: Array.from({ length: nodes * drives }, (_, index) =>
    disk(1 + Math.floor(index / drives), 1 + (index % drives), bytes),
  ),
})

test.each([
  [{ media: 'HDD' as const, capacityBytes: 4n * terabyte, driveWritesPerDay: null }, 'capacity', 'A disk keeps data'],
  [{ media: 'SSD' as const, capacityBytes: 800_000_000_000n, driveWritesPerDay: 10 }, 'cache', 'Flash beside disks'],
  [
    { media: 'SSD' as const, capacityBytes: 800_000_000_000n, driveWritesPerDay: 1 },
    'capacity',
    'It stands 1 full writes a day; a cache needs 3',
  ],
  [{ media: 'SSD' as const, capacityBytes: 800_000_000_000n, driveWritesPerDay: null }, 'capacity', 'is not stated'],
])('beside disks, %o', (drive, role, why) =>
  expect(suggestedRole(drive, [disk(1, 1)])).toMatchObject({ role, why: expect.stringContaining(why) }),
)

test('among flash alone, what is small and stands writes is cache, what is as large as the rest is not', () => {
  const large = { media: 'SSD' as const, capacityBytes: 4n * terabyte, driveWritesPerDay: 5 }
  expect(suggestedRole({ ...large, capacityBytes: terabyte }, [large])).toMatchObject({ role: 'cache' })
  expect(suggestedRole(large, [large])).toMatchObject({
    role: 'capacity',
    why: expect.stringContaining('as large as the others'),
  })
})

const chosen = (bay: number, role: 'cache' | 'capacity', terabytes = 4) => ({
  id: `d${bay}`,
  bay,
  role,
  capacityBytes: BigInt(terabytes) * terabyte,
})
test('capacity is dealt out so that banks hold about the same', () => {
  const node = sampleNode(1)
  const drives = [
    chosen(1, 'cache'),
    chosen(2, 'cache'),
    chosen(3, 'capacity', 2),
    chosen(4, 'capacity'),
    chosen(5, 'capacity'),
    chosen(6, 'capacity', 2),
  ]
  expect(layBanks(node, drives).banks).toEqual([
    { nodeId: node.id, number: 1, cacheDriveId: 'd1', capacityDriveIds: ['d3', 'd4'] },
    { nodeId: node.id, number: 2, cacheDriveId: 'd2', capacityDriveIds: ['d5', 'd6'] },
  ])
})

test('what goes beyond the limit of a node stays out, and so does capacity without a cache drive', () => {
  const node = sampleNode(1, { mostCapacityDrives: 2 })
  const drives = [chosen(1, 'cache'), ...[2, 3, 4].map(bay => chosen(bay, 'capacity'))]
  expect(layBanks(node, drives).unplaced).toEqual([
    { driveId: 'd4', why: 'godwit-1 takes at most 2 capacity drives a bank.' },
  ])
  expect(layBanks(node, drives.slice(1)).unplaced).toHaveLength(3)
})

test('no bank ever exceeds the limit, and every drive is in one place', () => {
  const rows = fc.record({
    caches: fc.integer({ min: 1, max: 4 }),
    sizes: fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 30 }),
    most: fc.integer({ min: 1, max: 8 }),
  })
  fc.assert(
    fc.property(rows, ({ caches, sizes, most }) => {
      const drives = [
        ...Array.from({ length: caches }, (_, index) => chosen(index, 'cache')),
        ...sizes.map((size, index) => chosen(100 + index, 'capacity', size)),
      ]
      const { banks, unplaced } = layBanks(sampleNode(1, { mostCapacityDrives: most }), drives)
      expect(banks.every(bank => bank.capacityDriveIds.length <= most)).toBe(true)
      const all = [
        ...banks.flatMap(bank => [bank.cacheDriveId, ...bank.capacityDriveIds]),
        ...unplaced.map(each => each.driveId),
      ]
      expect(all.sort()).toEqual(drives.map(drive => drive.id).sort())
    }),
  )
})

test('the ladder of a cluster adds up to raw', () => {
  const drivesOf = fc.array(fc.array(fc.integer({ min: 1, max: 8 }), { minLength: 1, maxLength: 6 }), {
    minLength: 3,
    maxLength: 6,
  })
  fc.assert(
    fc.property(drivesOf, sizes => {
      const capacity = sizes.flatMap((own, node) =>
        own.map((size, bay) => disk(node + 1, bay, BigInt(size) * terabyte)),
      )
      const laid = clusterLayout({ ...parts(sizes.length, 0), capacity }, wish)
      const taken = laid.ladder.reduce((sum, rung) => sum + rung.takenBytes, 0n)
      expect(taken + laid.freeBytes).toBe(laid.rawBytes)
      expect(laid.ladder.at(-1)?.bytes).toBe(laid.freeBytes)
      expect(laid.redundancyBytes + laid.strandedBytes + laid.usableBytes + laid.cacheBytes).toBe(laid.rawBytes)
    }),
  )
})

test('one node with twice the capacity strands what the others cannot match, and it is said what they lack', () => {
  const four = parts(4, 4)
  const capacity = [...four.capacity, ...[5, 6, 7, 8].map(bay => disk(4, bay))]
  const three = { ...four, capacity }
  const wide: LayoutWish = { ...wish, scheme: { kind: 'erasure', dataPieces: 3, parityPieces: 1 } }
  const laid = clusterLayout(three, wide)
  const stranded = laid.domains.filter(domain => domain.strandedBytes > 0n)
  expect(stranded.map(domain => domain.name)).toEqual(['godwit-4'])
  expect(Number(stranded[0]?.strandedBytes) / 16e12).toBeCloseTo(1, 2)
  expect(lacking(laid, wide.scheme)).toEqual({
    bytes: 48n * terabyte,
    domainNames: ['godwit-1', 'godwit-2', 'godwit-3'],
  })
  expect(lacking(clusterLayout(four, wide), wide.scheme)).toBeUndefined()
})

test('without room for a whole stripe after losing a node there is no reserve', () => {
  expect(clusterLayout(parts(3, 4), wish).layout.rebuildPossible).toBe(false)
  expect(clusterLayout(parts(4, 4), wish).rebuildReserveBytes).toBeGreaterThan(0n)
  expect(clusterLayout(parts(4, 4), { ...wish, keepsRebuildReserve: false }).rebuildReserveBytes).toBe(0n)
})

test('racks are domains where they are stated, and a node without one stands alone', () => {
  const node = sampleNode(1)
  expect(domainOf(node, 'rack')).toEqual({ id: 'rack/rack 1', name: 'rack 1' })
  expect(domainOf({ ...node, rack: null }, 'rack').id).toBe(node.id)
  expect(clusterLayout(parts(4, 4), { ...wish, domain: 'rack' }).usableBytes).toBe(0n)
})

test.each([
  [{ kind: 'erasure' as const, dataPieces: 4, parityPieces: 2 }, 6, { readable: 2, writable: 1 }],
  [{ kind: 'erasure' as const, dataPieces: 4, parityPieces: 2 }, 8, { readable: 2, writable: 2 }],
  [{ kind: 'copies' as const, copies: 2 }, 2, { readable: 1, writable: 0 }],
  [{ kind: 'copies' as const, copies: 3 }, 4, { readable: 2, writable: 2 }],
])('%o over %i domains stays readable and writable', (scheme, domains, tolerance) =>
  expect(lossTolerance(scheme, domains)).toEqual(tolerance),
)

test('writes cost what the layout asks', () => {
  expect(writeCost({ kind: 'copies', copies: 3 })).toEqual({ smallWriteOperations: 3, fullStripeRatio: 3 })
  expect(writeCost({ kind: 'erasure', dataPieces: 8, parityPieces: 2 })).toEqual({
    smallWriteOperations: 6,
    fullStripeRatio: 1.25,
  })
  expect([
    schemeWords({ kind: 'copies', copies: 2 }),
    schemeWords({ kind: 'erasure', dataPieces: 8, parityPieces: 2 }),
  ]).toEqual(['2 copies', '8+2'])
  expect([widthOf({ kind: 'copies', copies: 2 }), piecesOf({ kind: 'copies', copies: 2 }).needed]).toEqual([2, 1])
})

const rebuild = (hours: number) => ({ driveHours: hours, bankHours: hours })

test('a cache drive that takes its bank with it is in the chain; without anything left to rebuild on nothing is claimed', () => {
  const of = (hasCache: boolean, hours: number) =>
    clusterDurability(
      [8, 8, 8, 8, 8],
      { kind: 'erasure', dataPieces: 3, parityPieces: 1 },
      'HDD',
      terabyte,
      { driveHours: hours, bankHours: 4 * hours },
      hasCache,
    )
  expect(of(true, 2)?.oneYear).toBeGreaterThan(1.5 * (of(false, 2)?.oneYear ?? 1))
  expect(of(true, 2)?.basis).toContain('takes its bank with it')
  expect([of(true, 0), of(true, Infinity)?.oneYear === 0]).toEqual([undefined, false])
})

test('durability falls with fewer losses survived, with slower rebuilds, and while a node is away', () => {
  const at = (spare: number, hours: number) =>
    clusterDurability(
      [8, 8, 8, 8, 8, 8],
      { kind: 'erasure', dataPieces: 3, parityPieces: spare },
      'HDD',
      4n * terabyte,
      { driveHours: hours, bankHours: hours },
      false,
    )
  expect(at(2, 5)?.oneYear).toBeLessThan(at(1, 5)?.oneYear ?? 0)
  expect(at(1, 5)?.oneYear).toBeLessThan(at(1, 50)?.oneYear ?? 0)
  const one = at(1, 5)
  expect(one?.whileOneIsAway).toBeGreaterThan((one?.oneYear ?? 0) / (8766 / 8))
  expect(
    clusterDurability([8, 8], { kind: 'erasure', dataPieces: 2, parityPieces: 1 }, 'HDD', terabyte, rebuild(5), false),
  ).toBeUndefined()
})

test('in its leading term it is the pairs of drives in different nodes that fail within a rebuild', () => {
  const found = clusterDurability([8, 8, 8, 8], { kind: 'copies', copies: 2 }, 'SSD', terabyte, rebuild(0.1), false)
  const rate = -Math.log1p(-0.008) / 8766
  const pairs = ((4 * 3) / 2) * 64
  const expected = pairs * 2 * rate * rate * 0.1 * 8766
  // Unreadable bits add to it, but not much for flash of one terabyte.
  expect((found?.oneYear ?? 0) / expected).toBeGreaterThan(0.99)
  expect((found?.oneYear ?? 0) / expected).toBeLessThan(1.2 + (32 * rate * 8766 * 8e12 * 1e-17) / expected)
})

test('a rebuild reads what is needed and writes one piece; all drives and links take part', () => {
  const ports = [1, 2, 3].map(number => sampleNodePort(number, { speedBitsPerSecond: 8e9, traffic: ['hosts'] }))
  const [drives, network] = spreadRebuild([disk(1, 1), disk(2, 1), disk(3, 1)], ports, {
    kind: 'erasure',
    dataPieces: 2,
    parityPieces: 1,
  })
  // Three drives share it, so that the unluckiest has a little more to do than the mean.
  expect(drives?.bytesPerSecond).toBeLessThan((3 * 180e6 * 0.5) / 3)
  expect(drives?.bytesPerSecond).toBeGreaterThan((0.95 * (3 * 180e6 * 0.5)) / 3)
  expect(network?.bytesPerSecond).toBeCloseTo((3 * 0.5e9 * 0.5) / 3)
  expect(spreadMove([disk(1, 1)], [disk(2, 1), disk(3, 1)], ports).map(part => part.bytesPerSecond)).toEqual([
    90e6, 180e6, 0.75e9,
  ])
})

test('the unluckiest of many drives has more to do, the less the more pieces there are', () => {
  expect(unevenness(2, 10)).toBe(1)
  expect(unevenness(31, 37)).toBeCloseTo(1.31, 2)
  expect(unevenness(31, 3700)).toBeLessThan(1.04)
  expect(unevenness(500, 37)).toBeGreaterThan(unevenness(31, 37))
})

test('the expected largest count agrees with drawing them', () => {
  const { placeAll } = placer(
    Array.from({ length: 8 }, (_, domain) => ({
      id: `d${domain}`,
      drives: Array.from({ length: 4 }, (__, drive) => ({ id: `d${domain}/${drive}`, chunks: 1 })),
    })),
    3,
  )
  const places = placeAll(400 * 30)
  const largest = Array.from({ length: 30 }, (_, run) => {
    const counts = new Array<number>(32).fill(0)
    for (const drive of places.subarray(run * 1200, (run + 1) * 1200)) counts[drive] = (counts[drive] ?? 0) + 1
    return Math.max(...counts) / (1200 / 32)
  })
  const mean = largest.reduce((sum, each) => sum + each, 0) / largest.length
  expect(mean / unevenness(32, 1200 / 32)).toBeGreaterThan(0.93)
  expect(mean / unevenness(32, 1200 / 32)).toBeLessThan(1.07)
})
