import { capacityLadder, type LadderInput, type Rung } from '../layout'
import type { Drive, Pool } from './schemas'

/** The ladder of one pool, from what its system states. */
export const poolLadder = (pool: LadderInput): Rung[] => capacityLadder(pool)

/** What volumes can be provisioned from without over-commit: usable less metadata and snapshot reserve. */
export const provisionableBytes = (pool: Pool) => pool.usableBytes - pool.metadataBytes - pool.snapshotReserveBytes

const sum = (values: readonly bigint[]) => values.reduce((total, value) => total + value, 0n)

/** The ladder of the whole estate: the pools' ladders added rung by rung, with the drives that no pool uses as the first step. */
export function estateLadder(pools: readonly Pool[], unassignedBytes: bigint): Rung[] {
  const ladders = pools.map(poolLadder)
  const pooledRaw = sum(pools.map(pool => pool.rawBytes))
  const template = poolLadder(nothing)
  const added = template.map((rung, index) => ({
    name: rung.name,
    bytes: sum(ladders.map(ladder => ladder[index]?.bytes ?? 0n)),
    takenBytes: sum(ladders.map(ladder => ladder[index]?.takenBytes ?? 0n)),
    sum: pools.map((pool, at) => ({
      name: pool.name,
      bytes: index === 0 ? pool.rawBytes : (ladders[at]?.[index]?.takenBytes ?? 0n),
    })),
  }))
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
  return [raw, pooled, ...added.slice(1)]
}

/** Bytes on healthy drives that no pool uses. */
export const unassignedBytes = (drives: readonly Drive[]) =>
  sum(drives.filter(drive => drive.role === 'unassigned' && drive.state !== 'failed').map(drive => drive.capacityBytes))

const nothing = {
  rawBytes: 0n,
  spareBytes: 0n,
  redundancyBytes: 0n,
  strandedBytes: 0n,
  metadataBytes: 0n,
  snapshotReserveBytes: 0n,
  writtenBytes: 0n,
}
