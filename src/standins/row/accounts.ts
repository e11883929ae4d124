import { stripeSetCount } from '@/core/clusters'
import { reachableLayout, shareOf } from '@/core/layout'
import { badValue, type PoolEntity, type SpreadLayout } from '../array'
import type { SimulatedRow } from './SimulatedRow'

const chunkBytes = 1n << 30n
export const metadataRatio = 0.0075

/** The pool with what its drives give, reserves and metadata included. */
export function accounted(row: SimulatedRow, pool: PoolEntity, snapshotRatio: number): PoolEntity {
  const spread = spreadOf(pool)
  const drives = new Map(row.array.all('drives').map(drive => [drive.id, drive]))
  const byDomain = new Map<string, bigint[]>()
  let cacheBytes = 0n
  for (const bank of spread.banks) {
    cacheBytes += BigInt(drives.get(bank.cache)?.capacityBytes ?? 0)
    const domain = spread.domain === 'rack' ? row.one('nodes', bank.nodeId).rack : bank.nodeId
    const own = bank.capacity.map(id => BigInt(drives.get(id)?.capacityBytes ?? 0))
    byDomain.set(domain, [...(byDomain.get(domain) ?? []), ...own])
  }
  const layout = reachableLayout(
    [...byDomain].map(([id, own]) => ({ id, drives: own.map(bytes => ({ bytes, count: 1 })) })),
    spread.scheme.kind === 'copies' ? { kind: 'mirror', copies: spread.scheme.copies } : spread.scheme,
    chunkBytes,
    stripeSetCount,
  )
  const stranded = layout.domains.reduce((sum, domain) => sum + domain.strandedChunks, 0n)
  const metadataBytes = shareOf(layout.rawBytes, metadataRatio)
  const reserve = spread.keepsReserve ? (layout.reserveBytes ?? 0n) : 0n
  const left = layout.usableBytes - metadataBytes - reserve
  return {
    ...pool,
    rawBytes: `${layout.rawBytes + cacheBytes}`,
    usableBytes: `${layout.usableBytes}`,
    metadataBytes: `${metadataBytes}`,
    snapshotReserveBytes: `${left > 0n ? shareOf(left, snapshotRatio) : 0n}`,
    spread: {
      ...spread,
      rebuildReserveBytes: `${reserve}`,
      strandedBytes: `${(stranded + layout.remainderChunks + layout.unevenChunks) * chunkBytes + layout.unchunkedBytes}`,
    },
  }
}

/** How a cluster's pool spreads its pieces; a pool of RAID groups is refused. */
export function spreadOf(pool: PoolEntity): SpreadLayout {
  if (pool.spread === null)
    throw badValue('Nothing was changed.', `${pool.name} has RAID groups.`, 'Name a pool of the cluster.')
  return pool.spread
}

/** The share of what a pool keeps for snapshots, as it stands. */
export function snapshotRatioOf(pool: PoolEntity): number {
  const left = BigInt(pool.usableBytes) - BigInt(pool.metadataBytes) - BigInt(pool.spread?.rebuildReserveBytes ?? 0)
  return left <= 0n ? 0 : Number(pool.snapshotReserveBytes) / Number(left)
}
