import { NotOffered, type Mirrors } from '@/ports'
import { ofMaker } from '../makers'
import type { Reach } from '../Reach'
import { taskIn, taskMaking } from '../tasks/requests'
import { actionOf, changeExpected } from '../volumes/expected'
import { mirrorOf, otherUri } from './read'
import { naaOf } from '../volumes/read'
import { isVolume, type RedfishVolume } from '../volumes/schema'

const noWords = 'Its maker has no words for mirrors on other systems.'

/** Mirrors of volumes on other systems. Source: Swordfish, Volume, its replicas of the type Mirror and their remote ends. */
export function mirrors({ connection, map }: Reach): Mirrors {
  /** Does to a volume what its action says. */
  const act = (
    locator: string,
    expectedNaa: string,
    action: Parameters<typeof actionOf>[2],
    body: (of: RedfishVolume) => object,
  ) =>
    changeExpected(connection, locator, expectedNaa, found => ({
      method: 'POST',
      at: actionOf(connection, found, action, 'mirrors'),
      body: body(found),
    }))
  const toOther = (found: RedfishVolume) => ({ TargetVolume: otherUri(found) })
  return {
    async of(volumeLocator) {
      const volume = await connection.readIfThere(volumeLocator, isVolume)
      return volume === undefined ? undefined : mirrorOf(volume)
    },
    async follower(naa) {
      const all = await connection.members(map.volumes, isVolume)
      return all.find(each => naaOf(each) === naa && mirrorOf(each)?.role === 'target')?.['@odata.id']
    },
    async begin(volumeLocator, expectedNaa, { partner, poolLocator, name, ratePercent }) {
      const own = ofMaker.mirrorBody(map.identity.maker, partner, ratePercent)
      if (own === undefined) throw new NotOffered(connection.endpoint.address, 'mirrors', noWords)
      const synchronous = { ReplicaType: 'Mirror', ReplicaUpdateMode: 'Synchronous' }
      const wanted = { VolumeName: name, ...synchronous, TargetStoragePool: poolLocator, ...own }
      return taskIn(await act(volumeLocator, expectedNaa, '#Volume.CreateReplicaTarget', () => wanted))
    },
    async refill(volumeLocator, expectedNaa, ratePercent) {
      const asked = await act(volumeLocator, expectedNaa, '#Volume.ResumeReplication', found => ({
        ...toOther(found),
        ...ofMaker.mirrorBody(map.identity.maker, ofMaker.mirrorPartner(found) ?? '', ratePercent),
      }))
      return taskIn(asked)
    },
    workOn: volumeLocator => taskMaking(connection, map.tasks, volumeLocator),
    reverse: async (volumeLocator, expectedNaa) =>
      void (await act(volumeLocator, expectedNaa, '#Volume.ReverseReplicationRelationship', toOther)),
    part: async (volumeLocator, expectedNaa) =>
      void (await act(volumeLocator, expectedNaa, '#Volume.RemoveReplicaRelationship', toOther)),
  }
}
