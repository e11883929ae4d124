import type { MirrorSeen } from '@/ports'
import { ofMaker } from '../makers'
import type { RedfishVolume } from '../volumes/schema'

const replicaOf = ({ ReplicaInfos }: RedfishVolume) => ReplicaInfos?.find(each => each.ReplicaType === 'Mirror')

/** Where the other end stands, as the system names it. */
export const otherUri = (volume: RedfishVolume): string | undefined =>
  replicaOf(volume)?.RemoteSourceReplica ?? volume.RemoteReplicaTargets?.[0]

/** What a volume is kept alike with; undefined for one that stands alone. Source: Swordfish, StorageReplicaInfo of the type Mirror. */
export function mirrorOf(volume: RedfishVolume): MirrorSeen | undefined {
  const replica = replicaOf(volume)
  if (replica === undefined) return undefined
  return {
    role: replica.ReplicaRole === 'Source' ? 'source' : 'target',
    state: stateOf(replica.ReplicaState ?? ''),
    partner: ofMaker.mirrorPartner(volume) ?? null,
    otherLocator: pathIn(otherUri(volume) ?? ''),
  }
}

/** What is neither filled nor being filled follows no more. Source: Swordfish, StorageReplicaInfo, ReplicaState. */
function stateOf(stated: string): MirrorSeen['state'] {
  if (stated === 'Synchronized') return 'alike'
  return stated === 'Unsynchronized' || stated === 'Initialized' ? 'filling' : 'broken'
}

/** Its path: the host that a system names is not asked, since nobody has accepted it. */
function pathIn(uri: string): string | null {
  try {
    return new URL(uri, 'https://other.invalid').pathname
  } catch {
    return null
  }
}
