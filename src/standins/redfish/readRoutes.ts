import type { FastifyInstance } from 'fastify'
import { notFound, type SimulatedArray } from '../array'
import { collection } from './collection'
import * as resources from './resources'
import { ethernetFabric, nodeManager } from './rowResources'
import type { RowService } from './RowService'
import type { Sessions } from './sessions'

type Query = Readonly<Record<string, unknown>>
type Params = { readonly a: string; readonly b: string }

const orMissing = <T>(body: T | undefined, path: string): T => {
  if (body === undefined) throw notFound(path)
  return body
}

/** Everything that an array shows. */
export function readRoutes(
  server: FastifyInstance,
  array: SimulatedArray,
  sessions: Sessions,
  nodes?: RowService,
): void {
  const { model } = array
  const root = '/redfish/v1'
  const listOf = <T>(
    path: string,
    type: string,
    name: string,
    members: (params: Params) => readonly T[],
    body: (member: T, params: Params) => Readonly<Record<string, unknown>>,
  ) =>
    server.get<{ Params: Params; Querystring: Query }>(`${root}/${path}`, ({ params, query, url }) => {
      const all = members(params)
      return collection(url.replace(/\?.*$/, ''), type, name, all.length, index => body(all[index] as T, params), query)
    })
  const service = (path: string, type: string, name: string, rest: () => object) =>
    server.get(`${root}/${path}`, () => ({
      '@odata.id': `${root}/${path}`,
      '@odata.type': `#${type}`,
      Id: name,
      Name: name,
      ServiceEnabled: true,
      ...rest(),
    }))

  server.get('/redfish', () => ({ v1: `${root}/` }))
  for (const path of [root, `${root}/`]) server.get(path, () => resources.serviceRoot(array, nodes !== undefined))

  service('SessionService', 'SessionService.v1_1_9.SessionService', 'SessionService', () => ({
    SessionTimeout: 1800,
    Sessions: resources.link('SessionService/Sessions'),
  }))
  listOf(
    'SessionService/Sessions',
    'SessionCollection',
    'Sessions',
    () => sessions.all(),
    each => ({
      '@odata.id': `${root}/SessionService/Sessions/${each.id}`,
      Id: each.id,
      Name: 'Session',
      UserName: each.userName,
    }),
  )
  const managers = () => [
    resources.manager(array),
    ...(nodes?.row.all('nodes').map(node => nodeManager(nodes.row, node)) ?? []),
  ]
  listOf('Managers', 'ManagerCollection', 'Managers', managers, each => each)
  server.get(`${root}/Managers/1`, () => resources.manager(array))

  listOf(
    'Chassis',
    'ChassisCollection',
    'Chassis',
    () => model.enclosures,
    each => orMissing(resources.chassis(array, each.id), each.id),
  )
  server.get<{ Params: Params }>(`${root}/Chassis/:a`, ({ params, url }) =>
    orMissing(resources.chassis(array, params.a), url),
  )
  listOf(
    'Chassis/:a/Drives',
    'DriveCollection',
    'Drives',
    params => array.all('drives').filter(each => each.enclosureId === params.a && !each.isPulled),
    each => resources.drive(array, each),
  )
  server.get<{ Params: Params }>(`${root}/Chassis/:a/Drives/:b`, ({ params }) =>
    resources.drive(array, array.one('drives', params.b)),
  )
  listOf(
    'Chassis/:a/Sensors',
    'SensorCollection',
    'Sensors',
    params => resources.sensors(array, params.a),
    each => each,
  )
  server.get<{ Params: Params }>(`${root}/Chassis/:a/Sensors/:b`, ({ params, url }) =>
    orMissing(
      resources.sensors(array, params.a).find(each => each['Id'] === params.b),
      url,
    ),
  )

  listOf('Storage', 'StorageCollection', 'Storage', () => [array], resources.storage)
  server.get(`${root}/Storage/1`, () => resources.storage(array))
  listOf(
    'Storage/1/Controllers',
    'StorageControllerCollection',
    'Controllers',
    () => model.controllers,
    each => resources.controller(array, each),
  )
  server.get<{ Params: Params }>(`${root}/Storage/1/Controllers/:a`, ({ params }) =>
    resources.controller(array, params.a),
  )
  listOf(
    'Storage/1/Controllers/:a/Ports',
    'PortCollection',
    'Ports',
    params => model.ports.filter(each => each.controller === params.a),
    each => orMissing(resources.port(array, each.id), each.id),
  )
  server.get<{ Params: Params }>(`${root}/Storage/1/Controllers/:a/Ports/:b`, ({ params, url }) =>
    orMissing(resources.port(array, params.b), url),
  )
  listOf(
    'Storage/1/StoragePools',
    'StoragePoolCollection',
    'Pools',
    () => array.all('pools'),
    each => resources.pool(array, each, nodes?.view),
  )
  server.get<{ Params: Params }>(`${root}/Storage/1/StoragePools/:a`, ({ params }) =>
    resources.pool(array, array.one('pools', params.a), nodes?.view),
  )
  listOf(
    'Storage/1/Volumes',
    'VolumeCollection',
    'Volumes',
    () => array.all('volumes'),
    each => resources.volume(array, each, nodes?.view),
  )
  server.get<{ Params: Params }>(`${root}/Storage/1/Volumes/:a`, ({ params }) =>
    resources.volume(array, array.one('volumes', params.a), nodes?.view),
  )

  listOf(
    'Fabrics',
    'FabricCollection',
    'Fabrics',
    () => (nodes === undefined ? [fabric] : [fabric, ethernetFabric]),
    each => each,
  )
  server.get(`${root}/Fabrics/SAN`, () => fabric)
  const endpoints = () => [
    ...model.ports.map(each => resources.targetEndpoint(array, each.id)),
    ...array.all('endpoints').map(each => resources.initiatorEndpoint(each.id, each.initiator)),
  ]
  listOf('Fabrics/SAN/Endpoints', 'EndpointCollection', 'Endpoints', endpoints, each => each)
  server.get<{ Params: Params }>(`${root}/Fabrics/SAN/Endpoints/:a`, ({ params, url }) =>
    orMissing(
      endpoints().find(each => each['Id'] === params.a),
      url,
    ),
  )
  listOf(
    'Fabrics/SAN/EndpointGroups',
    'EndpointGroupCollection',
    'Endpoint groups',
    () => array.all('groups'),
    resources.endpointGroup,
  )
  server.get<{ Params: Params }>(`${root}/Fabrics/SAN/EndpointGroups/:a`, ({ params }) =>
    resources.endpointGroup(array.one('groups', params.a)),
  )
  listOf(
    'Fabrics/SAN/Connections',
    'ConnectionCollection',
    'Connections',
    () => array.all('connections'),
    resources.connection,
  )
  server.get<{ Params: Params }>(`${root}/Fabrics/SAN/Connections/:a`, ({ params }) =>
    resources.connection(array.one('connections', params.a)),
  )

  service('TaskService', 'TaskService.v1_2_1.TaskService', 'TaskService', () => ({
    DateTime: new Date(array.clock.now()).toISOString(),
    Tasks: resources.link('TaskService/Tasks'),
  }))
  listOf('TaskService/Tasks', 'TaskCollection', 'Tasks', () => array.all('tasks'), resources.task)
  server.get<{ Params: Params }>(`${root}/TaskService/Tasks/:a`, ({ params }) =>
    resources.task(array.one('tasks', params.a)),
  )
  service('EventService', 'EventService.v1_10_3.EventService', 'EventService', () => ({
    ServerSentEventUri: `${root}/EventService/SSE`,
  }))
  service('UpdateService', 'UpdateService.v1_14_1.UpdateService', 'UpdateService', () => ({
    FirmwareInventory: resources.link('UpdateService/FirmwareInventory'),
  }))
  listOf(
    'UpdateService/FirmwareInventory',
    'SoftwareInventoryCollection',
    'Firmware',
    () => model.controllers,
    each => resources.firmware(array, each),
  )
}

const fabric = {
  '@odata.id': '/redfish/v1/Fabrics/SAN',
  '@odata.type': '#Fabric.v1_3_2.Fabric',
  Id: 'SAN',
  Name: 'Host access',
  FabricType: 'iSCSI',
  Endpoints: { '@odata.id': '/redfish/v1/Fabrics/SAN/Endpoints' },
  EndpointGroups: { '@odata.id': '/redfish/v1/Fabrics/SAN/EndpointGroups' },
  Connections: { '@odata.id': '/redfish/v1/Fabrics/SAN/Connections' },
}
