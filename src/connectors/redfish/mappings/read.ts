import type { Inventory } from '@/ports'
import type { Connection } from '../Connection'
import type { Checked } from '../schema'
import { nameOf } from './endpoint'
import { isConnection, isEndpoint, isEndpointGroup, isFabric } from './schema'

/** Whoever tries names one after another at a system fills no list here without an end. */
const mostUngrouped = 1000

/** Which volumes are shown to whom, and by which names and addresses hosts log in. */
export async function readFabric(connection: Connection, fabricsPath: string | undefined) {
  const mappings: Inventory['mappings'][number][] = []
  const accessGroups: Inventory['accessGroups'][number][] = []
  const initiators = new Set<string>()
  const targets = new Map<string, { readonly name: string; readonly address: string }>()
  const fabrics = fabricsPath === undefined ? [] : await connection.members(fabricsPath, isFabric)
  for (const fabric of fabrics) {
    const { endpoints, groups, connections } = await partsOf(connection, fabric)
    const names = new Map(endpoints.map(each => [each['@odata.id'], nameOf(each)]))
    const groupAt = new Map(groups.map(each => [each['@odata.id'], each]))
    const initiatorsOf = (group: Checked<typeof isEndpointGroup> | undefined) =>
      (group?.Endpoints ?? []).map(member => names.get(member['@odata.id']) ?? '')
    for (const group of groups) accessGroups.push({ name: group.Name, initiators: initiatorsOf(group) })
    for (const endpoint of endpoints) {
      if (isInitiator(endpoint)) initiators.add(nameOf(endpoint))
      const address = endpoint.IPTransportDetails?.[0]?.IPv4Address?.Address
      if (address !== undefined)
        targets.set((endpoint.Id ?? '').replace(/^target-/, ''), { name: nameOf(endpoint), address })
    }
    for (const each of connections) {
      const group = groupAt.get(each.Links?.InitiatorEndpointGroups?.[0]?.['@odata.id'] ?? '')
      const seenBy = { groupName: group?.Name ?? 'unnamed group', initiators: initiatorsOf(group) }
      for (const { Volume, LUN } of each.VolumeInfo)
        mappings.push({
          ...{ locator: each['@odata.id'], volumeLocator: Volume['@odata.id'], snapshotLocator: null },
          ...{ lun: LUN ?? 0, ...seenBy },
        })
    }
  }
  const grouped = new Set(accessGroups.flatMap(each => each.initiators))
  const ungrouped = [...initiators]
    .filter(each => each !== '' && !grouped.has(each))
    .sort()
    .slice(0, mostUngrouped)
  return { mappings, accessGroups, ungrouped, targets }
}

const isInitiator = ({ ConnectedEntities = [] }: Checked<typeof isEndpoint>) =>
  ConnectedEntities.some(({ EntityRole }) => EntityRole === 'Initiator')

/** What a fabric has; a list that it does not name is empty. */
async function partsOf(connection: Connection, fabric: Checked<typeof isFabric>) {
  return {
    endpoints:
      fabric.Endpoints === undefined ? [] : await connection.members(fabric.Endpoints['@odata.id'], isEndpoint),
    groups:
      fabric.EndpointGroups === undefined
        ? []
        : await connection.members(fabric.EndpointGroups['@odata.id'], isEndpointGroup),
    connections:
      fabric.Connections === undefined ? [] : await connection.members(fabric.Connections['@odata.id'], isConnection),
  }
}
