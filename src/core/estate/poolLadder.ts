import { capacityLadder, type Rung } from '../layout'
import type { Drive, Pool } from './schemas'

/** The ladder of one pool, from what its system states. */
export const poolLadder = (pool: Pool): Rung[] =>
  // Cache drives of a cluster are kept where an array's spares are: they hold no data of their own.
  capacityLadder(pool.failureDomain === null ? pool : { ...pool, spareBytes: 0n, cacheBytes: pool.spareBytes })

/** What volumes can be provisioned from without over-commit: usable less metadata, rebuild reserve and snapshot reserve. */
export const provisionableBytes = (pool: Pool) =>
  pool.usableBytes - pool.metadataBytes - pool.snapshotReserveBytes - pool.rebuildReserveBytes

/** How far a pool is filled: written ÷ what volumes can have of it; 1 where they can have nothing. */
export function fillRatioOf(pool: Pool): number {
  const capacity = provisionableBytes(pool)
  return capacity <= 0n ? 1 : Number(pool.writtenBytes) / Number(capacity)
}

const sum = (values: readonly bigint[]) => values.reduce((total, value) => total + value, 0n)

/** The ladder of the whole estate: the pools' ladders added rung by rung, with the drives that no pool uses as the first step. */
export function estateLadder(pools: readonly Pool[], unassignedBytes: bigint): Rung[] {
  const ladders = pools.map(poolLadder)
  const pooledRaw = sum(pools.map(pool => pool.rawBytes))
  // Pools do not all have the same steps: rungs of one name are added, and stand where the longest ladder has them.
  const rungOf = (index: number, name: string) => ladders[index]?.find(rung => rung.name === name)
  let left = pooledRaw
  const added = rungNames.flatMap(name => {
    if (!ladders.some(ladder => ladder.some(rung => rung.name === name))) return []
    const takenBytes = sum(ladders.map((_, index) => rungOf(index, name)?.takenBytes ?? 0n))
    left -= takenBytes
    const opened = pools.map((pool, at) => ({ name: pool.name, bytes: rungOf(at, name)?.takenBytes ?? 0n }))
    return [{ name, bytes: left, takenBytes, sum: opened }]
  })
  const raw: Rung = {
    name: 'raw',
    bytes: pooledRaw + unassignedBytes,
    takenBytes: 0n,
    sum: [
      ...pools.map(pool => ({ name: pool.name, bytes: pool.rawBytes })),
      { name: 'drives in no pool', bytes: unassignedBytes },
    ],
  }
  const pooled: Rung = {
    name: 'in pools',
    bytes: pooledRaw,
    takenBytes: unassignedBytes,
    sum: [{ name: 'drives in no pool', bytes: unassignedBytes }],
  }
  return [raw, pooled, ...added]
}

/** Bytes on healthy drives that no pool uses. */
export const unassignedBytes = (drives: readonly Drive[]) =>
  sum(drives.filter(drive => drive.role === 'unassigned' && drive.state !== 'failed').map(drive => drive.capacityBytes))

const rungNames = [
  'after spares',
  'after cache',
  'after layout',
  'after metadata',
  'after rebuild reserve',
  'after snapshot reserve',
  'free',
] as const
