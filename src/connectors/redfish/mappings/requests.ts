import type { Checked } from '../schema'
import { NotOffered, type MappingExpected, type MappingMade, type Mappings, type MappingSeen } from '@/ports'
import { UnreadableAnswer } from '../../http'
import type { Connection } from '../Connection'
import { OtherObject } from '../errors'
import { keyMark } from '../keyMark'
import { reference, type Offer } from '../Reach'
import { unlessGone } from '../unlessGone'
import { nameOf, newEndpoint } from './endpoint'
import { setSignIn, signInOf } from './signIn'
import { isConnection, isEndpoint, isEndpointGroup, isFabric } from './schema'

type EndpointGroup = Checked<typeof isEndpointGroup>

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
    throw new NotOffered(
      connection.endpoint.address,
      'mappings',
      'It offers no fabric with endpoints, groups and connections.',
    )
  return {
    endpoints: found.Endpoints['@odata.id'],
    groups: found.EndpointGroups['@odata.id'],
    connections: found.Connections['@odata.id'],
  }
}

/** Which volumes are shown to which groups of initiators. Source: Swordfish, Fabric and Connection. */
export const mappings: Offer<'mappings'> = ({ connection, map: { fabrics, identity } }): Mappings => ({
  make: (volume, group, initiators, key, isReadOnly = false) =>
    mapVolume(connection, fabrics, volume, group, initiators, key, isReadOnly),
  of: volume => mappingsOf(connection, fabrics, volume),
  isMadeBy: async (locator, key) => (await connection.readIfThere(locator, isConnection))?.Description === keyMark(key),
  remove: (locator, expected) => unmapVolume(connection, fabrics, locator, expected),
  initiatorsOf: group => groupInitiators(connection, fabrics, group),
  signInOf: async initiator => signInOf(connection, (await hostAccess(connection, fabrics)).endpoints, initiator),
  setSignIn: async (initiator, secrets) =>
    setSignIn(connection, identity.maker, (await hostAccess(connection, fabrics)).endpoints, initiator, secrets),
  targets: () => targets(connection, fabrics),
})

/** Where the initiators stand; those that the system does not know yet are told to it. */
async function endpointsOf(
  connection: Connection,
  endpoints: string,
  initiators: readonly string[],
): Promise<readonly string[]> {
  const known = new Map(
    (await connection.members(endpoints, isEndpoint)).map(each => [nameOf(each), each['@odata.id']]),
  )
  const members: string[] = []
  for (const initiator of initiators) {
    members.push(known.get(initiator) ?? (await endpointFor(connection, endpoints, initiator, newEndpoint(initiator))))
  }
  return members
}

/** Maps a volume to a group of initiators; endpoints, group and mapping that exist already are used as they are. */
async function mapVolume(
  connection: Connection,
  fabrics: string | undefined,
  volumeLocator: string,
  groupName: string,
  initiators: readonly string[],
  key: string,
  isReadOnly: boolean,
): Promise<MappingMade> {
  const access = await hostAccess(connection, fabrics)
  const members = await endpointsOf(connection, access.endpoints, initiators)
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
    VolumeInfo: [
      { AccessCapabilities: isReadOnly ? ['Read'] : ['Read', 'Write'], Volume: { '@odata.id': volumeLocator } },
    ],
    Links: { InitiatorEndpointGroups: [{ '@odata.id': group }] },
  })
  if (!isConnection(answer.body)) throw new UnreadableAnswer(access.connections, 'The new mapping was not stated.')
  return { locator: answer.body['@odata.id'], lun: answer.body.VolumeInfo[0]?.LUN ?? 0 }
}

/** Makes an endpoint; where somebody else has made it meanwhile, that one is used. */
async function endpointFor(
  connection: Connection,
  endpoints: string,
  initiator: string,
  body: object,
): Promise<string> {
  try {
    return (await connection.change('POST', endpoints, body)).location ?? ''
  } catch (cause) {
    const all = await connection.members(endpoints, isEndpoint)
    const made = all.find(each => nameOf(each) === initiator)
    if (made === undefined) throw cause
    return made['@odata.id']
  }
}

/** The group of a name with at least these members, made where it is not there yet. */
async function groupWith(
  connection: Connection,
  groups: string,
  name: string,
  members: readonly string[],
  key: string,
): Promise<string> {
  const known = async () => (await connection.members(groups, isEndpointGroup)).find(each => each.Name === name)
  let found = await known()
  if (found === undefined) {
    const body = { Name: name, Description: keyMark(key), GroupType: 'Client', Endpoints: members.map(reference) }
    try {
      return (await connection.change('POST', groups, body)).location ?? ''
    } catch (cause) {
      // Somebody else may have made it between looking and asking: then it is used.
      found = await known()
      if (found === undefined) throw cause
    }
  }
  // Added to, never replaced: an initiator that we do not know may be of a host that would lose all its volumes. So what is there is
  // what was read just before, with the tag that the change names.
  const lacks = (group: EndpointGroup) => members.filter(member => !membersOf(group).includes(member))
  if (lacks(found).length > 0)
    await connection.changeAsRead(found['@odata.id'], isEndpointGroup, group => ({
      method: 'PATCH',
      body: { Endpoints: [...membersOf(group), ...lacks(group)].map(reference) },
    }))
  return found['@odata.id']
}

async function mappingsOf(
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

/** A mapping that is gone already is removed. @throws {OtherObject} where it is of another volume or group */
async function unmapVolume(
  connection: Connection,
  fabrics: string | undefined,
  locator: string,
  expected: MappingExpected,
): Promise<void> {
  await unlessGone(async () => {
    await connection.changeAsRead(locator, isConnection, async found => {
      const volumes = found.VolumeInfo.map(info => info.Volume['@odata.id'])
      const groupLocator = found.Links?.InitiatorEndpointGroups?.[0]?.['@odata.id'] ?? ''
      const { groups } = await hostAccess(connection, fabrics)
      const group = (await connection.members(groups, isEndpointGroup)).find(each => each['@odata.id'] === groupLocator)
      const is = `${volumes.join(', ')} for ${group?.Name ?? 'nobody'}`
      const wanted = `${expected.volumeLocator} for ${expected.groupName}`
      if (is !== wanted) throw new OtherObject(locator, wanted, is)
      return { method: 'DELETE' }
    })
  })
}

const membersOf = (group: EndpointGroup) => (group.Endpoints ?? []).map(each => each['@odata.id'])

/** Names of the initiators in a group. */
async function groupInitiators(
  connection: Connection,
  fabrics: string | undefined,
  groupName: string,
): Promise<string[]> {
  const access = await hostAccess(connection, fabrics)
  const group = (await connection.members(access.groups, isEndpointGroup)).find(each => each.Name === groupName)
  const members = new Set((group?.Endpoints ?? []).map(each => each['@odata.id']))
  const endpoints = await connection.members(access.endpoints, isEndpoint)
  return endpoints.filter(each => members.has(each['@odata.id'])).map(each => nameOf(each))
}

/** The names by which hosts log in. */
async function targets(connection: Connection, fabrics: string | undefined): Promise<string[]> {
  const access = await hostAccess(connection, fabrics)
  const endpoints = await connection.members(access.endpoints, isEndpoint)
  return endpoints
    .filter(each => each.ConnectedEntities?.some(entity => entity.EntityRole === 'Target'))
    .map(each => nameOf(each))
}
