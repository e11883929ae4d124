import { heldBy, type SimulatedArray, type SnapshotEntity } from '../../array'
import { link, type Body } from '../body'
import { sourceIn, volumePath } from './volumeActions'

/** What one maker tells beyond the standard; the other states each snapshot's own space only. */
function ownSnapshotPart(
  array: SimulatedArray,
  each: SnapshotEntity,
  snapshots: readonly SnapshotEntity[],
  heldFirst: readonly { readonly last: number; readonly bytes: bigint }[],
): Body {
  if (array.model.maker !== 'Tallis & Thorne') return {}
  return {
    Oem: {
      TallisThorne: {
        HeldUntil: heldFirst.map(({ last, bytes }) => ({
          LastHolder: link(volumePath(snapshots[last]?.id ?? each.id)),
          Bytes: Number(bytes),
        })),
      },
    },
  }
}

/** A snapshot as it is shown: a volume that is the target of its source. */
export function snapshotBody(array: SimulatedArray, each: SnapshotEntity): Body {
  const volume = array.one('volumes', each.volumeId)
  const { snapshots, runs } = heldBy(array, each.volumeId)
  const place = snapshots.findIndex(({ id }) => id === each.id)
  const heldFirst = runs.filter(({ first }) => first === place)
  const own = heldFirst.find(({ last }) => last === place)?.bytes ?? 0n
  const at = new Date(each.takenAt).toISOString()
  return {
    DisplayName: each.name,
    Identifiers: [{ DurableNameFormat: 'NAA', DurableName: each.naa }],
    CapacityBytes: Number(each.sizeBytes),
    ProvisioningPolicy: 'Thin',
    Capacity: { Data: { ConsumedBytes: Number(own), ProvisionedBytes: Number(each.sizeBytes) } },
    CapacitySources: sourceIn(volume.poolId),
    ReplicaInfos: [
      {
        ReplicaRole: 'Target',
        ReplicaType: 'Snapshot',
        ReplicaUpdateMode: 'Adaptive',
        ReplicaState: each.isConsistent ? 'Synchronized' : 'Unsynchronized',
        ConsistencyState: each.isConsistent ? 'Consistent' : 'Inconsistent',
        WhenActivated: at,
        ...(each.isConsistent ? { WhenSynced: at } : {}),
        Replica: link(volumePath(each.volumeId)),
      },
    ],
    ...ownSnapshotPart(array, each, snapshots, heldFirst),
    Status: { State: each.isConsistent ? 'Enabled' : 'Starting', Health: 'OK' },
  }
}
