import fc from 'fast-check'
import { heldRuns, snapshotReserve, SnapshotSpace, type BlockVersion } from '.'

const version = fc
  .record({
    birth: fc.integer({ min: 0, max: 40 }),
    lived: fc.option(fc.integer({ min: 1, max: 30 })),
    bytes: fc.bigInt(1n, 2n ** 50n),
  })
  .map(({ birth, lived, bytes }): BlockVersion => ({ birth, death: lived === null ? null : birth + lived, bytes }))
const moments = fc
  .array(fc.integer({ min: 0, max: 50 }), { minLength: 1, maxLength: 9 })
  .map(all => all.sort((a, b) => a - b))

/** The slow way that anyone can check: each version by itself, asked which snapshots hold it. */
function slowReclaim(
  takenAt: readonly number[],
  versions: readonly BlockVersion[],
  chosen: ReadonlySet<number>,
): bigint {
  return versions.reduce((sum, { birth, death, bytes }) => {
    const holders = takenAt.flatMap((at, place) => (birth <= at && (death === null || at < death) ? [place] : []))
    return death !== null && holders.length > 0 && holders.every(place => chosen.has(place)) ? sum + bytes : sum
  }, 0n)
}

test('what a set gives back is what only its members hold', () => {
  fc.assert(
    fc.property(moments, fc.array(version, { maxLength: 40 }), fc.array(fc.nat(8)), (takenAt, versions, some) => {
      const chosen = new Set(some.filter(place => place < takenAt.length))
      const space = new SnapshotSpace(takenAt.length, heldRuns(takenAt, versions))
      expect(space.reclaim(chosen)).toBe(slowReclaim(takenAt, versions, chosen))
    }),
  )
})

test('together they give back no less than each alone, and all of them all', () => {
  fc.assert(
    fc.property(moments, fc.array(version, { maxLength: 40 }), (takenAt, versions) => {
      const space = new SnapshotSpace(takenAt.length, heldRuns(takenAt, versions))
      const alone = takenAt.reduce((sum, _, place) => sum + space.own(place), 0n)
      expect(space.total()).toBeGreaterThanOrEqual(alone)
      expect(space.reclaim(takenAt.keys())).toBe(space.total())
    }),
  )
})

test('places that are none give back nothing', () => {
  const space = new SnapshotSpace(2, [{ first: 0, last: 1, bytes: 7n }])
  expect([space.own(-1), space.own(5), space.reclaimOfRun(1, 0), space.reclaim([])]).toEqual([0n, 0n, 0n, 0n])
  expect(space.total()).toBe(7n)
})

test('the reserve follows the changes within the reach, and never is more than all of the volume for each', () => {
  const steady = Array.from({ length: 24 * 28 }, () => 10)
  expect(snapshotReserve(steady, 24, 24, 1e6)).toBe(240)
  expect(snapshotReserve(steady, 48, 48, 1e6)).toBe(480)
  expect(snapshotReserve(steady, 24, 2, 50)).toBe(100)
  // A burst once a week counts in most windows of a week, in few of a day.
  const weekly = steady.map((bytes, hour) => (hour % 168 === 0 ? 5000 : bytes))
  expect(snapshotReserve(weekly, 168, 168, 1e6)).toBe(5000 + 1670)
  expect(snapshotReserve([], 24, 24, 1e6)).toBe(0)
  expect(snapshotReserve([10, 10], 4, 4, 1e6)).toBe(40)
})
