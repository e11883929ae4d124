import type { Inventory, SnapshotSeen } from '@/ports'
import { ofMaker } from '../makers'
import { instant } from '../tasks/requests'
import { copyOf, naaOf, nameOf } from '../volumes/read'
import type { RedfishVolume } from '../volumes/schema'

type Found = Inventory['snapshots'][number]

/** Whether what stands among a system's volumes is a snapshot of another. */
export const isSnapshot = (volume: RedfishVolume) => copyOf(volume, 'Snapshot') !== undefined

/** Pending until the system itself says that it is consistent. */
function stateOf(volume: RedfishVolume): Found['state'] {
  if (volume.Status?.Health === 'Critical') return 'failed'
  return copyOf(volume, 'Snapshot')?.ConsistencyState === 'Consistent' ? 'consistent' : 'pending'
}

/** The moment that it holds: when it was consistent with, else when it was asked for. */
function momentOf(volume: RedfishVolume): string | null {
  const copy = copyOf(volume, 'Snapshot')
  return instant(copy?.WhenSynced ?? copy?.WhenActivated)
}

/** A snapshot that was looked at by itself. @param task that works on it */
export const seenSnapshot = (volume: RedfishVolume, task: string | null): SnapshotSeen => ({
  locator: volume['@odata.id'],
  name: nameOf(volume),
  naa: naaOf(volume),
  sizeBytes: BigInt(volume.CapacityBytes),
  takenAt: momentOf(volume),
  isConsistent: stateOf(volume) === 'consistent',
  task,
})

/** A snapshot as its system states it. */
export const foundSnapshot = (volume: RedfishVolume): Found => ({
  locator: volume['@odata.id'],
  volumeLocator: copyOf(volume, 'Snapshot')?.Replica?.['@odata.id'] ?? null,
  name: nameOf(volume),
  naa: naaOf(volume),
  sizeBytes: BigInt(volume.CapacityBytes),
  takenAt: momentOf(volume),
  state: stateOf(volume),
  ownBytes: BigInt(volume.Capacity?.Data?.ConsumedBytes ?? 0),
  heldUntil: ofMaker.heldUntil(volume),
})
