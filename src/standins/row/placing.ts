import { stripeSetCount } from '@/core/clusters'
import { balancedPlacement, type PlacementDomain } from '@/core/placement'
import type { DriveEntity, PoolEntity } from '../array'
import { schemeOf, widthOf } from './pieces'
import type { SimulatedRow } from './SimulatedRow'
import type { StripeTable } from './StripeTables'

/** Where all stripe sets would stand on those drives of the pool that may be used, moving as little as can be from where they stand. */
export function placedOn(
  row: SimulatedRow,
  pool: PoolEntity,
  mayUse: (drive: DriveEntity) => boolean,
  before?: StripeTable,
): StripeTable {
  const domains = domainsOf(row, pool, mayUse)
  const driveIds = domains.flatMap(domain => domain.drives.map(drive => drive.id))
  const indexOf = new Map(driveIds.map((id, index) => [id, index]))
  const width = widthOf(schemeOf(pool))
  const standing =
    before === undefined
      ? undefined
      : Int32Array.from(before.flatMap(places => places.map(drive => indexOf.get(drive ?? '') ?? -1)))
  const places = balancedPlacement(domains, width, stripeSetCount, standing)
  return Array.from({ length: stripeSetCount }, (_, set) =>
    Array.from({ length: width }, (__, piece) => driveIds[places[set * width + piece] ?? -1] ?? null),
  )
}

/** A pool's failure domains with those of their drives that may be used. */
export function domainsOf(
  row: SimulatedRow,
  pool: PoolEntity,
  mayUse: (drive: DriveEntity) => boolean,
): PlacementDomain[] {
  const capacity = new Set(pool.spread?.banks.flatMap(bank => bank.capacity))
  const domains = new Map<string, { id: string; chunks: number }[]>()
  for (const drive of row.array.all('drives')) {
    if (!capacity.has(drive.id) || !mayUse(drive)) continue
    const node = row.nodeOf(drive)
    const domain = pool.spread?.domain === 'rack' ? node.rack : node.id
    domains.set(domain, [
      ...(domains.get(domain) ?? []),
      { id: drive.id, chunks: Number(BigInt(drive.capacityBytes) >> 30n) },
    ])
  }
  return [...domains].map(([id, drives]) => ({ id, drives }))
}
