import type { Snapshot } from '../estate'
import { SnapshotSpace, type HeldRun } from './SnapshotSpace'

/** The space of one volume's snapshots, as their system tells it. */
export interface SpaceOf {
  /** In the order of the moments that they hold; those that are pending last. */
  readonly ordered: readonly Snapshot[]
  /** Whether the system tells what several hold together; else only each one's own space is known, and sums are the least that comes back. */
  readonly isExact: boolean
  readonly totalBytes: bigint
  readonly reclaim: (ids: Iterable<string>) => bigint
}

const momentOf = ({ takenAt }: Snapshot) => (takenAt === null ? Infinity : Date.parse(takenAt))

/** @param snapshots of one volume */
export function spaceOf(snapshots: readonly Snapshot[]): SpaceOf {
  const ordered = [...snapshots].sort((a, b) => momentOf(a) - momentOf(b) || a.name.localeCompare(b.name))
  const placeOf = new Map(ordered.map(({ id }, place) => [id, place]))
  if (ordered.some(({ heldUntil }) => heldUntil === null)) {
    const own = new Map(ordered.map(({ id, ownBytes }) => [id, ownBytes]))
    const sum = (ids: Iterable<string>) => [...new Set(ids)].reduce((total, id) => total + (own.get(id) ?? 0n), 0n)
    return { ordered, isExact: false, totalBytes: sum(own.keys()), reclaim: sum }
  }
  const byLocator = new Map(ordered.map(({ locator }, place) => [locator, place]))
  const runs = ordered.flatMap(({ heldUntil }, first): HeldRun[] =>
    (heldUntil ?? []).flatMap(({ locator, bytes }) => {
      const last = byLocator.get(locator)
      // A last holder that stands before the first is no run: what a system says so is not counted.
      return last === undefined || last < first ? [] : [{ first, last, bytes: BigInt(bytes) }]
    }),
  )
  const space = new SnapshotSpace(ordered.length, runs)
  return {
    ordered,
    isExact: true,
    totalBytes: space.total(),
    reclaim: ids => space.reclaim([...ids].flatMap(id => placeOf.get(id) ?? [])),
  }
}
