import type { ArrayModel, SessionEntity, SimulatedArray } from '../../array'
import { link, resource, root, status, type Body } from '../body'
import type { FromSchema } from 'json-schema-to-ts'
import { placesOf, single, type Place } from '../Place'
import { reader, text } from '../reader'
import type { Sessions } from '../sessions'
import { registryEntries, registryId } from './registry'

const signIn = {
  type: 'object',
  required: ['UserName', 'Password'],
  properties: { UserName: text, Password: text },
} as const

const readSignIn = reader<FromSchema<typeof signIn>>(signIn)

export const rootType = 'ServiceRoot.v1_16_0.ServiceRoot'

/** The service root: who the system is, and where its parts stand. Anybody may read it. Source: DSP0266, service root. */
export const rootBody = ({ model }: SimulatedArray, isRow: boolean): Body =>
  resource('', rootType, 'RootService', 'Root Service', {
    RedfishVersion: '1.19.0',
    UUID: model.uuid,
    Vendor: model.maker,
    Product: model.model,
    ServiceIdentification: model.name,
    ProtocolFeaturesSupported: {
      ExpandQuery: { NoLinks: true, Links: false, ExpandAll: false, Levels: false },
      FilterQuery: false,
      SelectQuery: true,
      OnlyMemberQuery: true,
      ExcerptQuery: false,
      TopSkipQuery: true,
    },
    ...Object.fromEntries(services(isRow).map(([name, path]) => [name, link(path)])),
    Links: { Sessions: link('SessionService/Sessions') },
  })

/** What the root leads to, by the root's property. */
export const services = (isRow: boolean): readonly (readonly [string, string])[] => [
  ['Chassis', 'Chassis'],
  ['Managers', 'Managers'],
  ['Storage', 'Storage'],
  ['Fabrics', 'Fabrics'],
  ['Tasks', 'TaskService'],
  ['SessionService', 'SessionService'],
  ['EventService', 'EventService'],
  ['UpdateService', 'UpdateService'],
  ['TelemetryService', 'TelemetryService'],
  ['Registries', 'Registries'],
  ...(isRow
    ? ([
        ['Systems', 'Systems'],
        ['AggregationService', 'AggregationService'],
      ] as const)
    : []),
]

/** What every service of the standard has around its resources: sessions, events, firmware, the registry of messages. */
export function servicePlaces(array: SimulatedArray, sessions: Sessions): Place[] {
  const { model } = array
  return [
    single('SessionService', 'SessionService.v1_1_9.SessionService', 'Session service', () => ({
      ServiceEnabled: true,
      SessionTimeout: 1800,
      Sessions: link('SessionService/Sessions'),
    })),
    ...sessionPlaces(sessions),
    single('EventService', 'EventService.v1_10_3.EventService', 'Event service', () => ({
      ServiceEnabled: true,
      ServerSentEventUri: `${root}/EventService/SSE`,
      // None are offered; clients look for the list all the same.
      Actions: {},
      Status: status(true),
    })),
    single('UpdateService', 'UpdateService.v1_14_1.UpdateService', 'Update service', () => ({
      ServiceEnabled: true,
      FirmwareInventory: link('UpdateService/FirmwareInventory'),
      Actions: {},
    })),
    ...firmwarePlaces(model),
    ...registryPlaces(model.maker),
  ]
}

const registryPlaces = (maker: string): Place[] => [
  ...placesOf<string>({
    path: 'Registries/:registry',
    type: 'MessageRegistryFile.v1_1_3.MessageRegistryFile',
    title: 'Message registries',
    members: () => [registryId],
    idOf: id => id,
    nameOf: () => 'Base message registry',
    body: () => ({
      Registry: registryId,
      Languages: ['en'],
      Location: [{ Language: 'en', Uri: `${root}/Registries/${registryId}/en` }],
    }),
  }),
  {
    path: `Registries/${registryId}/en`,
    type: 'MessageRegistry.v1_6_0.MessageRegistry',
    show: () => ({
      '@odata.id': `${root}/Registries/${registryId}/en`,
      '@odata.type': '#MessageRegistry.v1_6_0.MessageRegistry',
      Id: `${registryId}.0`,
      Name: 'Base message registry',
      Language: 'en',
      RegistryPrefix: 'Base',
      RegistryVersion: '1.18.0',
      OwningEntity: maker,
      Messages: registryEntries,
    }),
  },
]

const sessionPlaces = (sessions: Sessions): Place[] =>
  placesOf<SessionEntity>({
    path: 'SessionService/Sessions/:session',
    type: 'Session.v1_7_0.Session',
    title: 'Sessions',
    members: () => sessions.all(),
    idOf: each => each.id,
    nameOf: () => 'Session',
    body: each => ({ UserName: each.userName }),
    create: body => {
      const { UserName, Password } = readSignIn(body)
      const { id, token } = sessions.open(UserName, Password)
      const path = `SessionService/Sessions/${id}`
      return {
        made: resource(path, 'Session.v1_7_0.Session', id, 'Session', { UserName }),
        headers: { 'X-Auth-Token': token },
      }
    },
    remove: each => sessions.close(each.id),
  })

const firmwarePlaces = (model: ArrayModel): Place[] =>
  placesOf<string>({
    path: 'UpdateService/FirmwareInventory/:firmware',
    type: 'SoftwareInventory.v1_10_2.SoftwareInventory',
    title: 'Firmware',
    members: () => model.controllers,
    idOf: id => id,
    nameOf: id => `Firmware of controller ${id}`,
    body: id => ({
      Version: model.firmware,
      Updateable: true,
      RelatedItem: [link(`Storage/1/Controllers/${id}`)],
      Status: status(true),
    }),
  })
