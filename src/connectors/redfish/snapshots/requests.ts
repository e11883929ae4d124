import type { Snapshots } from '@/ports'
import type { Connection } from '../Connection'
import { OtherObject } from '../errors'
import type { Offer } from '../Reach'
import { madeBy, taskIn, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { actionOf, expectedVolume } from '../volumes/expected'
import { copyOf, nameOf } from '../volumes/read'
import { isVolume } from '../volumes/schema'
import { isSnapshot, seenSnapshot } from './read'

/** Snapshots and clones. Source: Swordfish, Volume, its replicas and the actions that make, split and reverse them. */
export const snapshots: Offer<'snapshots'> = ({ connection, map }): Snapshots => ({
  async named(sourceLocator, name) {
    const all = await connection.members(map.volumes, isVolume)
    const found = all.find(
      each =>
        nameOf(each) === name &&
        (copyOf(each, 'Snapshot') ?? copyOf(each, 'Clone'))?.Replica?.['@odata.id'] === sourceLocator,
    )
    if (found === undefined) return undefined
    return { locator: found['@odata.id'], task: await taskMaking(connection, map.tasks, found['@odata.id']) }
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
      const { found, etag } = await expectedVolume(connection, locator, expectedNaa)
      if (!isSnapshot(found)) throw new OtherObject(locator, 'a snapshot', 'a volume')
      await connection.change('DELETE', locator, undefined, etag)
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
    const { found, etag } = await expectedVolume(connection, volumeLocator, expectedNaa)
    const at = actionOf(connection, found, '#Volume.ReverseReplicationRelationship', 'snapshots')
    return taskIn(await connection.change('POST', at, { TargetVolume: snapshotLocator }, etag))
  },
  workOn: volumeLocator => taskMaking(connection, map.tasks, volumeLocator),
})

interface Copy {
  readonly name: string
  readonly poolLocator: string
  readonly sort: 'Snapshot' | 'Clone'
}

async function copy(connection: Connection, locator: string, expectedNaa: string, { name, poolLocator, sort }: Copy) {
  const { found, etag } = await expectedVolume(connection, locator, expectedNaa)
  const at = actionOf(connection, found, '#Volume.CreateReplicaTarget', 'snapshots')
  const body = { VolumeName: name, ReplicaType: sort, ReplicaUpdateMode: 'Adaptive', TargetStoragePool: poolLocator }
  return madeBy(connection, await connection.change('POST', at, body, etag))
}
