import type { Snapshots } from '@/ports'
import type { Connection } from '../Connection'
import { OtherObject } from '../errors'
import type { Offer } from '../Reach'
import { madeBy, taskIn, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { actionOf, changeExpected } from '../volumes/expected'
import { copyOf, nameOf } from '../volumes/read'
import { isVolume, type RedfishVolume } from '../volumes/schema'
import { isSnapshot, seenSnapshot } from './read'

/** Snapshots and clones. Source: Swordfish, Volume, its replicas and the actions that make, split and reverse them. */
export const snapshots: Offer<'snapshots'> = ({ connection, map }): Snapshots => ({
  async named(sourceLocator, name) {
    const all = await connection.members(map.volumes, isVolume)
    const locator = all.find(each => nameOf(each) === name && sourceOf(each) === sourceLocator)?.['@odata.id']
    return locator === undefined ? undefined : { locator, task: await taskMaking(connection, map.tasks, locator) }
  },
  take: (volumeLocator, expectedNaa, poolLocator, name) =>
    copy(connection, volumeLocator, expectedNaa, { name, poolLocator, sort: 'Snapshot' }),
  async at(locator) {
    const found = await connection.readIfThere(locator, isVolume)
    if (found === undefined || !isSnapshot(found)) return undefined
    return seenSnapshot(found, await taskMaking(connection, map.tasks, locator))
  },
  remove: (locator, expectedNaa) =>
    unlessGone(async () => {
      await changeExpected(connection, locator, expectedNaa, found => {
        if (!isSnapshot(found)) throw new OtherObject(locator, 'a snapshot', 'a volume')
        return { method: 'DELETE' }
      })
    }),
  clone: (snapshotLocator, expectedNaa, poolLocator, name) =>
    copy(connection, snapshotLocator, expectedNaa, { name, poolLocator, sort: 'Clone' }),
  async split(snapshotLocator, cloneLocator) {
    const found = await connection.read(snapshotLocator, isVolume)
    const at = actionOf(connection, found, '#Volume.SplitReplication', 'snapshots')
    return taskIn(await connection.change('POST', at, { TargetVolume: cloneLocator }))
  },
  async isShared(cloneLocator) {
    return copyOf(await connection.read(cloneLocator, isVolume), 'Clone') !== undefined
  },
  async restore(volumeLocator, expectedNaa, snapshotLocator) {
    const asked = await changeExpected(connection, volumeLocator, expectedNaa, found => ({
      method: 'POST',
      at: actionOf(connection, found, '#Volume.ReverseReplicationRelationship', 'snapshots'),
      body: { TargetVolume: snapshotLocator },
    }))
    return taskIn(asked)
  },
  workOn: volumeLocator => taskMaking(connection, map.tasks, volumeLocator),
})

/** Of what a volume is a snapshot or a clone. */
const sourceOf = (each: RedfishVolume) => (copyOf(each, 'Snapshot') ?? copyOf(each, 'Clone'))?.Replica?.['@odata.id']

interface Copy {
  readonly name: string
  readonly poolLocator: string
  readonly sort: 'Snapshot' | 'Clone'
}

async function copy(connection: Connection, locator: string, expectedNaa: string, { name, poolLocator, sort }: Copy) {
  const body = { VolumeName: name, ReplicaType: sort, ReplicaUpdateMode: 'Adaptive', TargetStoragePool: poolLocator }
  const asked = await changeExpected(connection, locator, expectedNaa, found => ({
    method: 'POST',
    at: actionOf(connection, found, '#Volume.CreateReplicaTarget', 'snapshots'),
    body,
  }))
  return madeBy(connection, asked)
}
