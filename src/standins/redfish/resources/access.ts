import {
  badValue,
  hostAccess,
  type ConnectionEntity,
  type EndpointEntity,
  type GroupEntity,
  type SimulatedArray,
} from '../../array'
import { idIn, link, resource, status, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { longText, reference, references, text } from '../reader'

/** What an array lets log in, by what is named so. */
const protocols = [
  { name: /^iqn\.[0-9]{4}-[0-9]{2}\./, format: 'iQN', protocol: 'iSCSI' },
  { name: /^eui\.[0-9a-fA-F]{16}$/, format: 'EUI', protocol: 'iSCSI' },
  { name: /^naa\.([0-9a-fA-F]{16}|[0-9a-fA-F]{32})$/, format: 'NAA', protocol: 'iSCSI' },
  { name: /^([0-9a-fA-F]{2}:){7}[0-9a-fA-F]{2}$/, format: 'FC_WWN', protocol: 'FC' },
  { name: /^nqn\.[0-9]{4}-[0-9]{2}\./, format: 'NQN', protocol: 'NVMeOverFabrics' },
] as const
const anyName = new RegExp(protocols.map(({ name }) => name.source).join('|'))
const protocolOf = (durableName: string) => protocols.find(({ name }) => name.test(durableName)) ?? protocols[0]

const newEndpoint = {
  type: 'object',
  required: ['Identifiers'],
  properties: {
    Identifiers: {
      type: 'array',
      minItems: 1,
      maxItems: 1,
      items: {
        type: 'object',
        required: ['DurableName'],
        properties: { DurableName: { type: 'string', pattern: anyName.source } },
      },
    },
  },
} as const
/** What is asked of an initiator, as makers here have words for it. */
const signIn = {
  type: 'object',
  additionalProperties: false,
  properties: {
    SignIn: {
      type: 'object',
      required: ['AuthenticationMethod'],
      additionalProperties: false,
      properties: {
        AuthenticationMethod: { enum: ['None', 'CHAP', 'MutualCHAP'] },
        InitiatorCHAPPassword: text,
        TargetPassword: text,
      },
    },
  },
} as const
const changedEndpoint = {
  type: 'object',
  required: ['Oem'],
  additionalProperties: false,
  properties: {
    Oem: {
      type: 'object',
      additionalProperties: false,
      properties: { TallisThorne: signIn, Ferrow: signIn, Mirefield: signIn },
    },
  },
} as const
const newGroup = {
  type: 'object',
  required: ['Name', 'Endpoints'],
  properties: { Name: text, Description: longText, Endpoints: references },
} as const
const changedGroup = {
  type: 'object',
  required: ['Endpoints'],
  additionalProperties: false,
  properties: { Endpoints: references },
} as const
const newConnection = {
  type: 'object',
  required: ['VolumeInfo', 'Links'],
  properties: {
    Description: longText,
    VolumeInfo: {
      type: 'array',
      minItems: 1,
      maxItems: 1,
      items: { type: 'object', required: ['Volume'], properties: { Volume: reference } },
    },
    Links: {
      type: 'object',
      required: ['InitiatorEndpointGroups'],
      properties: { InitiatorEndpointGroups: { ...references, minItems: 1, maxItems: 1 } },
    },
  },
} as const

interface Endpoint {
  readonly id: string
  readonly name: string
  readonly durableName: string
  /** Where it listens; undefined for an initiator. */
  readonly address: string | undefined
  /** What is asked of it where it logs in; undefined for a target. */
  readonly asked: 'None' | 'CHAP' | 'MutualCHAP' | undefined
}
const types = {
  endpoint: 'Endpoint.v1_8_1.Endpoint',
  group: 'EndpointGroup.v1_3_4.EndpointGroup',
  connection: 'Connection.v1_3_1.Connection',
}

/** Initiators and targets, groups of initiators, and which volume is shown to which group. Source: Swordfish, Fabric. */
export const accessPlaces = (array: SimulatedArray): Place[] => [
  ...endpointPlaces(array),
  ...groupPlaces(array),
  ...connectionPlaces(array),
]

const initiator = ({ id, initiator: durableName, signIn }: EndpointEntity): Endpoint => ({
  id,
  name: durableName,
  durableName,
  address: undefined,
  asked: signIn === undefined ? 'None' : signIn.ownSecret === null ? 'CHAP' : 'MutualCHAP',
})

const targets = (array: SimulatedArray): Endpoint[] =>
  array.model.ports.map(({ id, target, address }) => ({
    id: `target-${id}`,
    name: `Target on port ${id}`,
    durableName: target,
    address,
    asked: undefined,
  }))

function endpointPlaces(array: SimulatedArray): Place[] {
  const own = array.model.maker.replace(/[^A-Za-z0-9]/g, '') as 'TallisThorne' | 'Ferrow' | 'Mirefield'
  const bodyOf = (each: Endpoint): Body => ({
    ...endpointBody(each),
    ...(each.asked === undefined ? {} : { Oem: { [own]: { SignIn: { AuthenticationMethod: each.asked } } } }),
  })
  return placesOf<Endpoint>({
    path: 'Fabrics/SAN/Endpoints/:endpoint',
    type: types.endpoint,
    title: 'Endpoints',
    members: () => [...targets(array), ...array.all('endpoints').map(initiator)],
    idOf: each => each.id,
    nameOf: each => each.name,
    body: bodyOf,
    create: accepts(newEndpoint, wanted => {
      const each = initiator(hostAccess.addEndpoint(array, wanted.Identifiers[0]?.DurableName ?? ''))
      const path = `Fabrics/SAN/Endpoints/${each.id}`
      return { made: resource(path, types.endpoint, each.id, each.name, bodyOf(each)) }
    }),
    change: accepts(changedEndpoint, ({ Oem }, each: Endpoint) => {
      const wanted = Oem[own]?.SignIn
      if (wanted === undefined || each.asked === undefined)
        throw badValue('The endpoint was not changed.', 'Only the sign-in of an initiator can be.', 'Name that.')
      const { AuthenticationMethod: method, InitiatorCHAPPassword: secret = '', TargetPassword = '' } = wanted
      hostAccess.setSignIn(
        array,
        each.id,
        method === 'None' ? null : { secret, ownSecret: method === 'MutualCHAP' ? TargetPassword : null },
      )
      return undefined
    }),
  })
}

const endpointBody = ({ durableName, address }: Endpoint): Body => ({
  EndpointProtocol: protocolOf(durableName).protocol,
  ConnectedEntities: [{ EntityRole: address === undefined ? 'Initiator' : 'Target' }],
  Identifiers: [{ DurableNameFormat: protocolOf(durableName).format, DurableName: durableName }],
  ...(address === undefined
    ? {}
    : { IPTransportDetails: [{ IPv4Address: { Address: address }, Port: 3260, TransportProtocol: 'TCP' }] }),
  Status: status(true),
})

const groupBody = (each: GroupEntity): Body => ({
  Description: each.description,
  GroupType: 'Client',
  Endpoints: each.endpointIds.map(id => link(`Fabrics/SAN/Endpoints/${id}`)),
})

const connectionName = (each: ConnectionEntity) => `Mapping ${each.id}`
const connectionBody = (each: ConnectionEntity): Body => ({
  Description: each.description,
  ConnectionType: 'Storage',
  VolumeInfo: [
    { AccessCapabilities: ['Read', 'Write'], Volume: link(`Storage/1/Volumes/${each.volumeId}`), LUN: each.lun },
  ],
  Links: { InitiatorEndpointGroups: [link(`Fabrics/SAN/EndpointGroups/${each.groupId}`)] },
})

const groupPlaces = (array: SimulatedArray): Place[] =>
  placesOf<GroupEntity>({
    path: 'Fabrics/SAN/EndpointGroups/:group',
    type: types.group,
    title: 'Endpoint groups',
    members: () => array.all('groups'),
    find: id => array.maybe('groups', id),
    idOf: each => each.id,
    nameOf: each => each.name,
    body: groupBody,
    create: accepts(newGroup, wanted => {
      const description = wanted.Description ?? ''
      const each = hostAccess.addGroup(array, wanted.Name, description, wanted.Endpoints.map(idIn))
      const path = `Fabrics/SAN/EndpointGroups/${each.id}`
      return { made: resource(path, types.group, each.id, each.name, groupBody(each)) }
    }),
    change: accepts(changedGroup, ({ Endpoints }, each: GroupEntity) => {
      hostAccess.setGroupMembers(array, each.id, Endpoints.map(idIn))
      return undefined
    }),
  })

const connectionPlaces = (array: SimulatedArray): Place[] =>
  placesOf<ConnectionEntity>({
    path: 'Fabrics/SAN/Connections/:connection',
    type: types.connection,
    title: 'Connections',
    members: () => array.all('connections'),
    find: id => array.maybe('connections', id),
    idOf: each => each.id,
    nameOf: connectionName,
    body: connectionBody,
    create: accepts(newConnection, wanted => {
      const group = idIn(wanted.Links.InitiatorEndpointGroups[0])
      const each = hostAccess.connect(array, group, idIn(wanted.VolumeInfo[0]?.Volume), wanted.Description ?? '')
      const path = `Fabrics/SAN/Connections/${each.id}`
      return { made: resource(path, types.connection, each.id, connectionName(each), connectionBody(each)) }
    }),
    remove: each => hostAccess.disconnect(array, each.id),
  })
