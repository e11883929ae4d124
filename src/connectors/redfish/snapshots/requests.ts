import { NotOffered, type Snapshots } from '@/ports'
import type { Connection } from '../Connection'
import { OtherObject } from '../errors'
import type { Offer } from '../Reach'
import { madeBy, taskIn, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { copyOf, naaOf, nameOf } from '../volumes/read'
import { isVolume, type RedfishVolume } from '../volumes/schema'
import { isSnapshot, seenSnapshot } from './read'

type Action = `#Volume.${'CreateReplicaTarget' | 'SplitReplication' | 'ReverseReplicationRelationship'}`

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
      const { found, etag } = await expected(connection, locator, expectedNaa)
      if (!isSnapshot(found)) throw new OtherObject(locator, 'a snapshot', 'a volume')
      await connection.change('DELETE', locator, undefined, etag)
    }),
  clone: (snapshotLocator, expectedNaa, poolLocator, name) =>
    copy(connection, snapshotLocator, expectedNaa, { name, poolLocator, sort: 'Clone' }),
  async split(snapshotLocator, cloneLocator) {
    const found = await connection.read(snapshotLocator, isVolume)
    const at = target(connection, found, '#Volume.SplitReplication')
    return taskIn(await connection.change('POST', at, { TargetVolume: cloneLocator }))
  },
  async isShared(cloneLocator) {
    return copyOf(await connection.read(cloneLocator, isVolume), 'Clone') !== undefined
  },
  async restore(volumeLocator, expectedNaa, snapshotLocator) {
    const { found, etag } = await expected(connection, volumeLocator, expectedNaa)
    const at = target(connection, found, '#Volume.ReverseReplicationRelationship')
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
  const { found, etag } = await expected(connection, locator, expectedNaa)
  const at = target(connection, found, '#Volume.CreateReplicaTarget')
  const body = { VolumeName: name, ReplicaType: sort, ReplicaUpdateMode: 'Adaptive', TargetStoragePool: poolLocator }
  return madeBy(connection, await connection.change('POST', at, body, etag))
}

/** Where an action is asked for. @throws {NotOffered} where the system does not offer it */
function target(connection: Connection, { Actions }: RedfishVolume, action: Action): string {
  const { target: at } = (Actions as Partial<Record<Action, { readonly target?: string }>> | undefined)?.[action] ?? {}
  if (at !== undefined) return at
  throw new NotOffered(
    connection.endpoint.address,
    'snapshots',
    `Its volumes offer no ${action.slice('#Volume.'.length)}.`,
  )
}

/** @throws {OtherObject} where something else stands there than what is expected */
async function expected(connection: Connection, locator: string, expectedNaa: string) {
  const tagged = await connection.readTagged(locator, isVolume)
  const naa = naaOf(tagged.found)
  if (naa !== expectedNaa) throw new OtherObject(locator, expectedNaa, naa)
  return tagged
}
