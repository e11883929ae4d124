import type { LineageEntity, SnapshotEntity, VolumeEntity } from './entities'
import { extentBytes, type SimulatedArray } from './SimulatedArray'

const dayMilliseconds = 86_400_000

/** Snapshots of a volume in the order in which they were taken. */
export const snapshotsOf = (array: SimulatedArray, volumeId: string): SnapshotEntity[] =>
  array
    .all('snapshots')
    .filter(each => each.volumeId === volumeId)
    .sort((a, b) => a.number - b.number)

const rateOf = (volume: VolumeEntity) => Number(volume.changedBytesPerDay ?? 0)

/** A volume's versions as they stand before any snapshot: all of it live. */
const begun = (array: SimulatedArray, volume: VolumeEntity): LineageEntity => ({
  id: volume.id,
  taken: 0,
  changedAt: array.clock.now(),
  live: [{ first: 1, bytes: Number(volume.workloadBytes) }],
  dead: [],
})

/** Of what a workload overwrites, what it had written last: files that are open, logs, tables that are hot. */
const hotShare = 0.7

/**
 * Versions of a volume's accounted bytes as they are now. Of W bytes, W·(1 − e^(−r·Δ/W)) are others after Δ at the rate r: some of them
 * what was written last, the others anywhere. A version dies with the latest snapshot as its last holder; one that no snapshot holds
 * leaves nothing.
 */
export function lineageOf(array: SimulatedArray, volume: VolumeEntity): LineageEntity {
  const known = array.maybe('lineages', volume.id) ?? begun(array, volume)
  const now = array.clock.now()
  const total = Number(volume.workloadBytes)
  const changed =
    total <= 0 ? 0 : 1 - Math.exp((-rateOf(volume) * Math.max(0, now - known.changedAt)) / dayMilliseconds / total)
  const before = known.live.reduce((sum, { bytes }) => sum + bytes, 0)
  const dead = known.dead.map(each => ({ ...each }))
  const next = known.taken + 1
  let hot = before * changed * hotShare
  let fresh = total - before
  const kept: { first: number; bytes: number }[] = []
  for (const { first, bytes } of [...known.live].sort((a, b) => b.first - a.first)) {
    const hit = Math.min(bytes, hot)
    hot -= hit
    const dies = Math.floor(hit + (bytes - hit) * changed * (1 - hotShare))
    fresh += dies
    if (dies < bytes) kept.push({ first, bytes: bytes - dies })
    if (dies > 0 && first <= known.taken) dead.push({ first, last: known.taken, bytes: dies })
  }
  const own = kept.find(each => each.first === next)
  if (own === undefined) kept.push({ first: next, bytes: Math.max(0, fresh) })
  else own.bytes += Math.max(0, fresh)
  return { ...known, changedAt: now, live: kept, dead: gathered(dead) }
}

const accountedMilliseconds = 60_000

/** Accounts what workloads have overwritten since the last time, of volumes that have snapshots. */
export function account(array: SimulatedArray): void {
  const now = array.clock.now()
  const due = array.all('lineages').filter(each => now - each.changedAt >= accountedMilliseconds)
  array.store.commit(
    due.flatMap(({ id }) => {
      const volume = array.maybe('volumes', id)
      return volume === undefined || rateOf(volume) === 0 ? [] : [array.entry('lineages', lineageOf(array, volume))]
    }),
  )
}

/** Those with the same first and last holder are one. */
function gathered(runs: LineageEntity['dead']): LineageEntity['dead'] {
  const sums = new Map<string, { first: number; last: number; bytes: number }>()
  for (const { first, last, bytes } of runs) {
    const key = `${first}-${last}`
    const sum = sums.get(key)
    if (sum === undefined) sums.set(key, { first, last, bytes })
    else sum.bytes += bytes
  }
  return [...sums.values()]
}

/** The volume's versions after one is taken now. */
export const taken = (lineage: LineageEntity): LineageEntity => ({ ...lineage, taken: lineage.taken + 1 })

/** The versions after the volume has gone back to what a snapshot holds: what that one holds lives again, what came after it is dead. */
export function restoredTo(lineage: LineageEntity, number: number): LineageEntity {
  const isHeld = ({ first, last }: { first: number; last: number }) => first <= number && last >= number
  return {
    ...lineage,
    live: [
      ...lineage.live.filter(({ first }) => first <= number),
      ...lineage.dead.filter(isHeld).map(({ first, bytes }) => ({ first, bytes })),
    ],
    dead: gathered([
      ...lineage.dead.filter(each => !isHeld(each)),
      ...lineage.live
        .filter(({ first }) => first > number && first <= lineage.taken)
        .map(({ first, bytes }) => ({ first, last: lineage.taken, bytes })),
    ]),
  }
}

/** What the snapshots of a volume hold that the volume has no longer, by places in the order in which they were taken. */
export function heldBy(array: SimulatedArray, volumeId: string) {
  const snapshots = snapshotsOf(array, volumeId)
  const sums = new Map<string, { first: number; last: number; bytes: bigint }>()
  const add = (first: number, last: number, bytes: bigint) => {
    if (first < 0 || last < first) return
    const key = `${first}-${last}`
    const sum = sums.get(key)
    if (sum === undefined) sums.set(key, { first, last, bytes })
    else sum.bytes += bytes
  }
  if (snapshots.length > 0) {
    // As it was last accounted: what a system states of space is never of this very moment.
    for (const run of array.maybe('lineages', volumeId)?.dead ?? []) {
      const first = snapshots.findIndex(each => each.number >= run.first)
      const last = snapshots.findLastIndex(each => each.number <= run.last)
      add(first, last, BigInt(run.bytes))
    }
    const ids = snapshots.map(({ id }) => id)
    for (const { first, last, extents } of array.blocks.copies?.heldRuns(volumeId, ids) ?? [])
      add(first, last, BigInt(extents) * extentBytes)
  }
  return { snapshots, runs: [...sums.values()] }
}
