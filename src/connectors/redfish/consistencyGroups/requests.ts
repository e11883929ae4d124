import { NotOffered, type ConsistencyGroups, type Made, type SnapshotSeen } from '@/ports'
import { changeNamed } from '../changeNamed'
import { keyMark } from '../keyMark'
import { reference, type Offer, type Reach } from '../Reach'
import { seenSnapshot } from '../snapshots/read'
import { madeBy, taskIn, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { copyOf, nameOf } from '../volumes/read'
import { isVolume } from '../volumes/schema'
import { isConsistencyGroup, type RedfishConsistencyGroup } from './schema'

/** Groups of volumes and their common snapshots. Source: Swordfish, ConsistencyGroup and its action that makes replicas. */
export const consistencyGroups: Offer<'consistencyGroups'> = ({ connection, map }): ConsistencyGroups => {
  const all = map.consistencyGroups
  if (all === undefined)
    throw new NotOffered(connection.endpoint.address, 'consistencyGroups', 'Its storage names no consistency groups.')
  return {
    async byKey(key): Promise<Made | undefined> {
      const found = (await connection.members(all, isConsistencyGroup)).find(each => each.Description === keyMark(key))
      return found === undefined ? undefined : { locator: found['@odata.id'], task: null }
    },
    async form(name, volumeLocators, key) {
      const body = { Name: name, Description: keyMark(key), Volumes: volumeLocators.map(reference) }
      return madeBy(connection, await connection.change('POST', all, body))
    },
    async at(locator) {
      const found = await connection.readIfThere(locator, isConsistencyGroup)
      return found === undefined ? undefined : { locator, name: found.Name, volumeLocators: volumesOf(found) }
    },
    dissolve: (locator, expectedName) =>
      unlessGone(async () => {
        await changeNamed(connection, locator, isConsistencyGroup, expectedName, () => ({ method: 'DELETE' }))
      }),
    async take(locator, expectedName, name) {
      const body = { ConsistencyGroupName: name, ReplicaType: 'Snapshot', ReplicaUpdateMode: 'Adaptive' }
      const { address } = connection.endpoint
      const asked = await changeNamed(connection, locator, isConsistencyGroup, expectedName, ({ Actions }) => {
        const { target } = Actions?.['#ConsistencyGroup.CreateReplicaTarget'] ?? {}
        if (target === undefined)
          throw new NotOffered(address, 'consistencyGroups', 'Its groups offer no common snapshots.')
        return { method: 'POST', at: target, body }
      })
      return taskIn(asked)
    },
    taken: (locator, name) => taken({ connection, map }, locator, name),
  }
}

const volumesOf = (group: RedfishConsistencyGroup) => (group.Volumes ?? []).map(each => each['@odata.id'])

/** The system names them: by what each is of, and the name that was given to all of them. */
async function taken({ connection, map }: Reach, locator: string, name: string): Promise<readonly SnapshotSeen[]> {
  const group = await connection.readIfThere(locator, isConsistencyGroup)
  if (group === undefined) return []
  const members = volumesOf(group)
  const task = await taskMaking(connection, map.tasks, locator)
  const found = (await connection.members(map.volumes, isVolume)).flatMap(each => {
    const place = members.indexOf(copyOf(each, 'Snapshot')?.Replica?.['@odata.id'] ?? '')
    const isNamed = nameOf(each) === name || nameOf(each).endsWith(`.${name}`)
    return place < 0 || !isNamed ? [] : [{ place, seen: seenSnapshot(each, task) }]
  })
  return found.sort((a, b) => a.place - b.place).map(({ seen }) => seen)
}
