import type { VolumeMirror } from '@/core/estate'
import type { Inventory } from '@/ports'
import { ofMaker } from '../makers'
import { mirrorOf } from '../mirrors/read'
import type { RedfishVolume } from './schema'

/** What an administrator has named it, where the system keeps that apart from its own name. Source: Swordfish, Volume, DisplayName. */
export const nameOf = (volume: RedfishVolume) => volume.DisplayName ?? volume.Name ?? ''

export const naaOf = (volume: RedfishVolume) =>
  (volume.Identifiers.find(each => each.DurableNameFormat === 'NAA')?.DurableName ?? '')
    .toLowerCase()
    .replace(/[^0-9a-f]/g, '')

/** What a volume is a copy of, by one sort of copying; undefined where it is none. */
export const copyOf = (volume: RedfishVolume, sort: 'Snapshot' | 'Clone') =>
  volume.ReplicaInfos?.find(each => each.ReplicaType === sort && each.ReplicaRole === 'Target')

/** The pool from which it comes. */
export const poolOf = (volume: RedfishVolume) =>
  volume.CapacitySources?.[0]?.ProvidingPools?.Members?.[0]?.['@odata.id'] ?? ''

export function foundVolume(volume: RedfishVolume): Inventory['volumes'][number] {
  const sizeBytes = BigInt(volume.CapacityBytes)
  return {
    locator: volume['@odata.id'],
    poolLocator: poolOf(volume),
    name: nameOf(volume),
    naa: naaOf(volume),
    sizeBytes,
    isThin: volume.ProvisioningPolicy === 'Thin',
    writtenBytes:
      volume.Capacity?.Data?.ConsumedBytes === undefined ? sizeBytes : BigInt(volume.Capacity.Data.ConsumedBytes),
    lostBytes: ofMaker.lostBytes(volume),
    limits: ofMaker.volumeLimits(volume),
    mirror: mirrorIn(volume),
    consistencyGroupLocator: volume.Links?.ConsistencyGroups?.[0]?.['@odata.id'] ?? null,
    cloneOfLocator: copyOf(volume, 'Clone')?.Replica?.['@odata.id'] ?? null,
  }
}

function mirrorIn(volume: RedfishVolume): VolumeMirror | null {
  const { role, state, partner } = mirrorOf(volume) ?? {}
  return role === undefined || state === undefined ? null : { role, state, partner: partner ?? null }
}
