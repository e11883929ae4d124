import type { RaidSchemeText } from '@/core/estate'
import { raidLayout } from '@/core/layout'
import type { Inventory } from '@/ports'
import { ofMaker, type SpreadStated } from '../makers'
import type { RedfishPool } from './schema'

type FoundPool = Inventory['pools'][number]

/** RAID types of the standard, as layouts. Source: Swordfish, Volume.RAIDType. */
const schemeByRaidType: Readonly<Record<string, RaidSchemeText>> = {
  RAID0: { kind: 'parity', parityDrives: 0 },
  RAID1: { kind: 'mirror', copies: 2 },
  RAID1Triple: { kind: 'mirror', copies: 3 },
  RAID5: { kind: 'parity', parityDrives: 1 },
  RAID6: { kind: 'parity', parityDrives: 2 },
  RAID6TP: { kind: 'parity', parityDrives: 3 },
}

/** The RAID type of a layout; undefined for one that the standard has no word for. */
export const raidTypeOf = (scheme: RaidSchemeText) =>
  Object.entries(schemeByRaidType).find(([, each]) => JSON.stringify(each) === JSON.stringify(scheme))?.[0]

export const groupsOf = (pool: RedfishPool) =>
  (pool.CapacitySources ?? []).map(source => (source.ProvidingDrives?.Members ?? []).map(member => member['@odata.id']))
export const sparesOf = (pool: RedfishPool) => (pool.Links?.DedicatedSpareDrives ?? []).map(spare => spare['@odata.id'])

/** The layout that a pool states; one that is missing or has no word here is unknown, and nothing is claimed of it. */
function schemeOf(pool: RedfishPool): RaidSchemeText | { readonly kind: 'unknown'; readonly stated: string } {
  const stated = pool.SupportedRAIDTypes?.[0]
  return schemeByRaidType[stated ?? ''] ?? { kind: 'unknown', stated: (stated ?? 'not stated').slice(0, 200) }
}

/** A pool as its system states it, with what redundancy and stranding take, recomputed from its groups' drives. */
export function foundPool(pool: RedfishPool, driveAt: ReadonlyMap<string, Inventory['drives'][number]>): FoundPool {
  const spread = ofMaker.spread(pool)
  if (spread !== undefined) return foundSpreadPool(pool, spread, driveAt)
  const bytesOf = (locator: string) => driveAt.get(locator)?.capacityBytes ?? 0n
  const first = driveAt.get(groupsOf(pool)[0]?.[0] ?? '')
  const scheme = schemeOf(pool)
  const groups = groupsOf(pool).map(group => group.map(bytesOf))
  const spareBytes = sparesOf(pool).reduce((sum, locator) => sum + bytesOf(locator), 0n)
  const usableBytes = BigInt(pool.Capacity.Data.AllocatedBytes ?? 0)
  const rawBytes = groups.flat().reduce((sum, bytes) => sum + bytes, spareBytes)
  const strandedBytes = groups.reduce((sum, group) => {
    const layout = scheme.kind === 'unknown' ? undefined : raidLayout(group, scheme, group.length, 0)
    return sum + (layout?.feasible === true ? layout.strandedBytes : 0n)
  }, 0n)
  const redundancyBytes = rawBytes - spareBytes - strandedBytes - usableBytes
  return {
    locator: pool['@odata.id'],
    name: pool.Name,
    scheme,
    failureDomain: null,
    driveKind: { media: first?.media ?? 'HDD', protocol: first?.protocol ?? 'SAS' },
    groupSizes: groups.map(group => group.length),
    spareCount: sparesOf(pool).length,
    state: stateOf(pool),
    rawBytes,
    usableBytes,
    writtenBytes: BigInt(pool.Capacity.Data.ConsumedBytes ?? 0),
    provisionedBytes: BigInt(pool.Capacity.Data.ProvisionedBytes ?? 0),
    metadataBytes: BigInt(pool.Capacity.Metadata?.AllocatedBytes ?? 0),
    snapshotReserveBytes: BigInt(pool.Capacity.Snapshot?.GuaranteedBytes ?? 0),
    snapshotBytes: BigInt(pool.Capacity.Snapshot?.ConsumedBytes ?? 0),
    redundancyBytes: redundancyBytes < 0n ? 0n : redundancyBytes,
    strandedBytes,
    spareBytes,
    rebuildReserveBytes: 0n,
  }
}

const stateOf = ({ Status }: RedfishPool): FoundPool['state'] =>
  Status.State === 'Starting'
    ? 'starting'
    : Status.Health === 'Critical'
      ? 'failed'
      : Status.Health === 'Warning'
        ? 'degraded'
        : 'fine'

/** A cluster's pool: one group a bank; cache drives are counted as spares are, since they hold no data of their own. */
function foundSpreadPool(
  pool: RedfishPool,
  spread: SpreadStated,
  driveAt: ReadonlyMap<string, Inventory['drives'][number]>,
): FoundPool {
  const { banks, rawBytes, strandedBytes } = spread
  const first = driveAt.get(banks[0]?.capacityLocators[0] ?? '')
  const usableBytes = BigInt(pool.Capacity.Data.AllocatedBytes ?? 0)
  const cacheBytes = banks.reduce((sum, bank) => sum + (driveAt.get(bank.cacheLocator)?.capacityBytes ?? 0n), 0n)
  const redundancyBytes = rawBytes - cacheBytes - strandedBytes - usableBytes
  return {
    locator: pool['@odata.id'],
    name: pool.Name,
    scheme: spread.scheme,
    failureDomain: spread.domain,
    driveKind: { media: first?.media ?? 'HDD', protocol: first?.protocol ?? 'SAS' },
    groupSizes: banks.map(bank => bank.capacityLocators.length),
    spareCount: 0,
    state: stateOf(pool),
    rawBytes,
    usableBytes,
    writtenBytes: BigInt(pool.Capacity.Data.ConsumedBytes ?? 0),
    provisionedBytes: BigInt(pool.Capacity.Data.ProvisionedBytes ?? 0),
    metadataBytes: BigInt(pool.Capacity.Metadata?.AllocatedBytes ?? 0),
    snapshotReserveBytes: BigInt(pool.Capacity.Snapshot?.GuaranteedBytes ?? 0),
    snapshotBytes: BigInt(pool.Capacity.Snapshot?.ConsumedBytes ?? 0),
    redundancyBytes: redundancyBytes < 0n ? 0n : redundancyBytes,
    strandedBytes,
    spareBytes: cacheBytes,
    rebuildReserveBytes: spread.rebuildReserveBytes,
  }
}
