import {
  badValue,
  blockMirrors,
  type MirrorEntity,
  type SimulatedArray,
  type TaskEntity,
  type VolumeEntity,
} from '../../array'
import { root, type Body } from '../body'

/** What a request for a replica adds where it shall stand on another array. */
export const mirrorParts = {
  type: 'object',
  properties: {
    TallisThorne: {
      type: 'object',
      properties: {
        MirrorPartner: { type: 'string', maxLength: 64 },
        MoveRatePercent: { type: 'number', minimum: 1, maximum: 100 },
      },
    },
  },
} as const

interface Asked {
  readonly VolumeName: string
  readonly TargetStoragePool: string
  readonly Oem?: { readonly TallisThorne?: { readonly MirrorPartner?: string; readonly MoveRatePercent?: number } }
}

const usualPercent = 40

/** Of the rate of drives and line, what filling may take (0 to 1). */
export const shareOf = (own: Asked['Oem']): number => (own?.TallisThorne?.MoveRatePercent ?? usualPercent) / 100

export function mirror(
  array: SimulatedArray,
  volumeId: string,
  { VolumeName, TargetStoragePool, Oem }: Asked,
): TaskEntity {
  const { MirrorPartner } = Oem?.TallisThorne ?? {}
  if (MirrorPartner === undefined)
    throw badValue('No mirror was made.', 'It is not said to which array.', 'Name one of its partners.')
  return blockMirrors.mirrorVolume(array, volumeId, {
    partner: MirrorPartner,
    poolId: TargetStoragePool.split('/').at(-1) ?? '',
    name: VolumeName,
    share: shareOf(Oem),
  })
}

/** Where the other end stands, as a URI that leads there from outside. */
function otherUri(array: SimulatedArray, { partner, volumeId }: MirrorEntity): string {
  const name = array.partners.find(({ model }) => model.serial === partner)?.model.name ?? 'gone'
  return `https://${name}.storage.marrowfield.example${root}/Storage/1/Volumes/${volumeId}`
}

/** Whether a request names the other end of a volume's mirror, and no replica on the array itself. */
export const isOtherEnd = (array: SimulatedArray, volume: VolumeEntity, uri: string): boolean =>
  volume.mirror !== undefined && uri === otherUri(array, volume.mirror)

/** One end of a mirror. Source: Swordfish, StorageReplicaInfo and Volume, RemoteReplicaTargets. */
export function mirrorBody(array: SimulatedArray, { mirror: end }: VolumeEntity): Body {
  if (end === undefined) return {}
  const isAlike = end.state === 'synchronised'
  return {
    ReplicaInfos: [
      {
        ReplicaRole: end.role === 'source' ? 'Source' : 'Target',
        ReplicaType: 'Mirror',
        ReplicaUpdateMode: 'Synchronous',
        ReplicaState: isAlike ? 'Synchronized' : end.state === 'broken' ? 'Broken' : 'Unsynchronized',
        ConsistencyState: isAlike ? 'Consistent' : 'Inconsistent',
        ...(end.role === 'target' ? { RemoteSourceReplica: otherUri(array, end) } : {}),
      },
    ],
    ...(end.role === 'source' ? { RemoteReplicaTargets: [otherUri(array, end)] } : {}),
  }
}
