import { UnreadableAnswer } from '../http'
import type { MappingMade, MappingSeen } from '@/ports'
import type { Connection } from './Connection'
import { NoHostAccess } from './errors'
import { keyMark } from './keyMark'
import { isConnection, isEndpoint, isEndpointGroup, isFabric } from './schemas'

interface HostAccess {
  readonly endpoints: string
  readonly groups: string
  readonly connections: string
}

async function hostAccess(connection: Connection, fabrics: string | undefined): Promise<HostAccess> {
  const all = fabrics === undefined ? [] : await connection.members(fabrics, isFabric)
  const found = all.find(
    each => each.Endpoints !== undefined && each.EndpointGroups !== undefined && each.Connections !== undefined,
  )
  if (found?.Endpoints === undefined || found.EndpointGroups === undefined || found.Connections === undefined)
    throw new NoHostAccess(connection.endpoint.address)
  return {
    endpoints: found.Endpoints['@odata.id'],
    groups: found.EndpointGroups['@odata.id'],
    connections: found.Connections['@odata.id'],
  }
}

/** Maps a volume to a group of initiators; endpoints, group and mapping that exist already are used as they are. */
export async function mapVolume(
  connection: Connection,
  fabrics: string | undefined,
  volumeLocator: string,
  groupName: string,
  initiators: readonly string[],
  key: string,
): Promise<MappingMade> {
  const access = await hostAccess(connection, fabrics)
  const known = new Map(
    (await connection.members(access.endpoints, isEndpoint)).map(each => [
      each.Identifiers[0]?.DurableName ?? '',
      each['@odata.id'],
    ]),
  )
  const members: string[] = []
  for (const initiator of initiators) {
    const body = {
      Name: initiator,
      EndpointProtocol: 'iSCSI',
      Identifiers: [{ DurableNameFormat: 'iQN', DurableName: initiator }],
    }
    members.push(known.get(initiator) ?? (await connection.change('POST', access.endpoints, body)).location ?? '')
  }
  const group = await groupWith(connection, access.groups, groupName, members, key)
  const mapped = (await connection.members(access.connections, isConnection)).find(
    each =>
      each.VolumeInfo[0]?.Volume['@odata.id'] === volumeLocator &&
      each.Links?.InitiatorEndpointGroups?.some(link => link['@odata.id'] === group),
  )
  if (mapped !== undefined) return { locator: mapped['@odata.id'], lun: mapped.VolumeInfo[0]?.LUN ?? 0 }
  const answer = await connection.change('POST', access.connections, {
    Description: keyMark(key),
    ConnectionType: 'Storage',
    VolumeInfo: [{ AccessCapabilities: ['Read', 'Write'], Volume: { '@odata.id': volumeLocator } }],
    Links: { InitiatorEndpointGroups: [{ '@odata.id': group }] },
  })
  if (!isConnection(answer.body)) throw new UnreadableAnswer(access.connections, 'The new mapping was not stated.')
  return { locator: answer.body['@odata.id'], lun: answer.body.VolumeInfo[0]?.LUN ?? 0 }
}

async function groupWith(
  connection: Connection,
  groups: string,
  name: string,
  members: readonly string[],
  key: string,
): Promise<string> {
  const wanted = members.map(member => ({ '@odata.id': member }))
  const found = (await connection.members(groups, isEndpointGroup)).find(each => each.Name === name)
  if (found === undefined) {
    const body = { Name: name, Description: keyMark(key), GroupType: 'Client', Endpoints: wanted }
    return (await connection.change('POST', groups, body)).location ?? ''
  }
  const has = new Set((found.Endpoints ?? []).map(each => each['@odata.id']))
  if (members.some(member => !has.has(member)) || has.size !== members.length)
    await connection.change('PATCH', found['@odata.id'], { Endpoints: wanted })
  return found['@odata.id']
}

export async function mappingsOf(
  connection: Connection,
  fabrics: string | undefined,
  volumeLocator: string,
): Promise<MappingSeen[]> {
  const access = await hostAccess(connection, fabrics)
  const groups = new Map(
    (await connection.members(access.groups, isEndpointGroup)).map(each => [each['@odata.id'], each.Name]),
  )
  const all = await connection.members(access.connections, isConnection)
  return all
    .filter(each => each.VolumeInfo.some(info => info.Volume['@odata.id'] === volumeLocator))
    .map(each => ({
      locator: each['@odata.id'],
      groupName: groups.get(each.Links?.InitiatorEndpointGroups?.[0]?.['@odata.id'] ?? '') ?? '',
      lun: each.VolumeInfo[0]?.LUN ?? 0,
    }))
}

/** The names by which hosts log in. */
export async function targets(connection: Connection, fabrics: string | undefined): Promise<string[]> {
  const access = await hostAccess(connection, fabrics)
  const endpoints = await connection.members(access.endpoints, isEndpoint)
  return endpoints
    .filter(each => each.ConnectedEntities?.some(entity => entity.EntityRole === 'Target'))
    .map(each => each.Identifiers[0]?.DurableName ?? '')
}
