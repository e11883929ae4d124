import {
  badValue,
  blockMirrors,
  blockSnapshots,
  type SimulatedArray,
  type SnapshotEntity,
  type VolumeEntity,
} from '../../array'
import { link, resource, type Body } from '../body'
import { accepts, type Outcome } from '../Place'
import { text } from '../reader'
import { isOtherEnd, mirror, mirrorParts, shareOf } from './mirrors'

export type Shown = VolumeEntity | SnapshotEntity
export const isSnapshot = (each: Shown): each is SnapshotEntity => 'takenAt' in each
export const volumeType = 'Volume.v1_10_1.Volume'
export const volumePath = (id: string) => `Storage/1/Volumes/${id}`
/** Where the space of a volume comes from. */
export const sourceIn = (poolId: string) => [
  { Id: '0', Name: 'Source', ProvidingPools: { Members: [link(`Storage/1/StoragePools/${poolId}`)] } },
]

const newReplica = {
  type: 'object',
  required: ['VolumeName', 'ReplicaType', 'ReplicaUpdateMode', 'TargetStoragePool'],
  properties: {
    VolumeName: text,
    ReplicaType: { enum: ['Snapshot', 'Clone', 'Mirror'] },
    ReplicaUpdateMode: { enum: ['Adaptive', 'Synchronous'] },
    TargetStoragePool: text,
    Oem: mirrorParts,
  },
} as const
const resumed = {
  type: 'object',
  required: ['TargetVolume'],
  properties: { TargetVolume: text, Oem: mirrorParts },
} as const
const replicaOf = { type: 'object', required: ['TargetVolume'], properties: { TargetVolume: text } } as const

/** What may be done with volumes and snapshots where copies are kept. Source: Swordfish, actions of Volume. */
export const copyActions = (array: SimulatedArray, body: (each: Shown) => Body) => ({
  CreateReplicaTarget: creating(array, body),
  /** From a snapshot as the source: its clone stands alone afterwards. */
  SplitReplication: {
    accepts: accepts(
      replicaOf,
      ({ TargetVolume }): Outcome => ({
        task: blockSnapshots.splitClone(array, lastPart(TargetVolume)),
      }),
    ),
  },
  /** The volume becomes what its snapshot is; or the other end of its mirror takes over. */
  ReverseReplicationRelationship: {
    accepts: accepts(replicaOf, ({ TargetVolume }, each: Shown): Outcome => {
      const volume = volumeOnly(each)
      if (!isOtherEnd(array, volume, TargetVolume))
        return { task: blockSnapshots.restoreVolume(array, volume.id, lastPart(TargetVolume)) }
      blockMirrors.reverseMirror(array, volume.id)
      return undefined
    }),
  },
  ...mirrorActions(array),
})

const creating = (array: SimulatedArray, body: (each: Shown) => Body) => ({
  accepts: accepts(newReplica, (wanted, each: Shown): Outcome => {
    if (wanted.ReplicaType === 'Mirror') return { task: mirror(array, volumeOnly(each).id, wanted) }
    if (wanted.ReplicaType === 'Snapshot')
      return { task: blockSnapshots.takeSnapshot(array, volumeOnly(each).id, wanted.VolumeName) }
    if (!isSnapshot(each))
      throw badValue('No clone was made.', 'Clones are made of snapshots.', 'Take a snapshot first.')
    const request = { name: wanted.VolumeName, poolId: lastPart(wanted.TargetStoragePool) }
    const { volume, task } = blockSnapshots.cloneSnapshot(array, each.id, request)
    return task === undefined
      ? { made: resource(volumePath(volume.id), volumeType, volume.id, volume.name, body(volume)) }
      : { task }
  }),
  allowable:
    array.partners.length === 0
      ? { ReplicaType: ['Snapshot', 'Clone'], ReplicaUpdateMode: ['Adaptive'] }
      : { ReplicaType: ['Snapshot', 'Clone', 'Mirror'], ReplicaUpdateMode: ['Adaptive', 'Synchronous'] },
})

/** What is done with a mirror that stands. */
const mirrorActions = (array: SimulatedArray) => ({
  /** Fills a mirror that was broken again. */
  ResumeReplication: {
    accepts: accepts(resumed, ({ TargetVolume, Oem }, each: Shown): Outcome => {
      const volume = volumeOnly(each)
      if (!isOtherEnd(array, volume, TargetVolume))
        throw badValue('Nothing was filled.', 'That is no mirror of it.', 'Name the other end of its mirror.')
      return { task: blockMirrors.resumeMirror(array, volume.id, shareOf(Oem)) }
    }),
  },
  /** Ends a mirror; what the other end holds stays. */
  RemoveReplicaRelationship: {
    accepts: accepts(replicaOf, ({ TargetVolume }, each: Shown): Outcome => {
      const volume = volumeOnly(each)
      if (!isOtherEnd(array, volume, TargetVolume))
        throw badValue('Nothing was ended.', 'That is no mirror of it.', 'Name the other end of its mirror.')
      blockMirrors.partMirror(array, volume.id)
      return undefined
    }),
  },
})

const lastPart = (address: string) => address.split('/').at(-1) ?? ''

export function volumeOnly(each: Shown): VolumeEntity {
  if (isSnapshot(each))
    throw badValue(`${each.name} was not changed.`, 'It is a snapshot.', 'Clone it to have a volume.')
  return each
}
