import type { FastifyInstance, FastifyReply } from 'fastify'
import { badValue, type BankEntity, type TaskEntity } from '../array'
import type { ClusterPools, SimulatedRow, StorageInterfaceEntity } from '../row'
import { collection } from './collection'
import { idIn } from './requests'
import {
  readComputer,
  readTimeSource,
  readInterface,
  readSwitchPort,
  readDrive,
  readErasure,
  readUnion,
  readMembers,
  readClusterPool,
  readDrives,
  type BankBody,
  type InterfaceChange,
} from './rowRequests'
import { root, task as taskBody } from './resources'
import * as resources from './rowResources'

type Params = { readonly a: string; readonly b: string }
type Query = Readonly<Record<string, unknown>>

const headerBytes = 18
const accepted = (reply: FastifyReply, task: TaskEntity) =>
  reply.code(202).header('Location', `${root}/TaskService/Tasks/${task.id}`).send(taskBody(task))

const bankOf = (bank: BankBody): BankEntity => ({
  nodeId: idIn(bank.Node),
  number: bank.Number,
  cache: idIn(bank.Cache),
  capacity: bank.Capacity.map(idIn),
})

/** Whether a request for a pool asks for a cluster's. */
export const isClusterPool = (body: unknown) =>
  (body as { Oem?: { Mirefield?: unknown } } | null)?.Oem?.Mirefield !== undefined

export function createClusterPool(pools: ClusterPools, body: unknown): TaskEntity {
  const wanted = readClusterPool(body)
  const { Copies, DataPieces, ParityPieces, FailureDomain, KeepsRebuildReserve, Banks } = wanted.Oem.Mirefield
  if ((Copies === undefined) === (DataPieces === undefined || ParityPieces === undefined))
    throw badValue('The pool was not made.', 'Give either copies, or data and parity pieces.', 'Name one of both.')
  return pools.createPool({
    name: wanted.Name,
    description: wanted.Description ?? '',
    scheme:
      Copies === undefined
        ? { kind: 'erasure', dataPieces: DataPieces ?? 2, parityPieces: ParityPieces ?? 1 }
        : { kind: 'copies', copies: Copies },
    domain: FailureDomain,
    banks: Banks.map(bankOf),
    keepsReserve: KeepsRebuildReserve,
    snapshotReserveRatio: (wanted.Capacity?.Snapshot?.AllocatedPercent ?? 0) / 100,
  })
}

/** What a row of nodes shows and takes besides what every array does. */
export function rowRoutes(server: FastifyInstance, row: SimulatedRow, pools: ClusterPools): void {
  const listOf = <T>(
    path: string,
    type: string,
    name: string,
    all: (params: Params) => readonly T[],
    body: (each: T) => Readonly<Record<string, unknown>>,
  ) =>
    server.get<{ Params: Params; Querystring: Query }>(`${root}/${path}`, ({ params, query, url }) => {
      const own = all(params)
      return collection(url.replace(/\?.*$/, ''), type, name, own.length, index => body(own[index] as T), query)
    })
  const one = (path: string, body: (params: Params) => object) =>
    server.get<{ Params: Params }>(`${root}/${path}`, ({ params }) => body(params))
  const nodes = () => row.all('nodes')
  const computer = (node: typeof nodes extends () => (infer N)[] ? N : never) => resources.computer(row, node)

  listOf('Systems', 'ComputerSystemCollection', 'Computers', nodes, computer)
  one('Systems/:a', ({ a }) => computer(row.one('nodes', a)))
  server.patch<{ Params: Params }>(`${root}/Systems/:a`, ({ params, body }) => {
    row.setRestartService(params.a, readComputer(body).HostWatchdogTimer.FunctionEnabled)
    return computer(row.one('nodes', params.a))
  })
  one('Managers/:a', ({ a }) => resources.nodeManager(row, row.one('nodes', a)))
  server.patch<{ Params: Params }>(`${root}/Managers/:a/NetworkProtocol`, ({ params, body }) => {
    if (readTimeSource(body).NTP.ProtocolEnabled) row.followTime(params.a)
    return resources.nodeManager(row, row.one('nodes', params.a))
  })

  listOf(
    'Systems/:a/EthernetInterfaces',
    'EthernetInterfaceCollection',
    'Interfaces',
    ({ a }) => row.all('nodePorts').filter(port => port.nodeId === a),
    resources.ethernetInterface,
  )
  one('Systems/:a/EthernetInterfaces/:b', ({ b }) => resources.ethernetInterface(row.one('nodePorts', b)))
  server.patch<{ Params: Params }>(`${root}/Systems/:a/EthernetInterfaces/:b`, ({ params, body }) => {
    const wanted = readInterface(body)
    const storage = storageOf(wanted)
    row.setInterface(params.b, {
      ...(wanted.MTUSize === undefined ? {} : { mtu: wanted.MTUSize }),
      ...(storage === undefined ? {} : { storage }),
    })
    return resources.ethernetInterface(row.one('nodePorts', params.b))
  })

  listOf(
    'Chassis/:a/NetworkAdapters',
    'NetworkAdapterCollection',
    'Adapters',
    ({ a }) => [row.one('nodes', a)],
    resources.networkAdapter,
  )
  listOf(
    'Chassis/:a/NetworkAdapters/1/Ports',
    'PortCollection',
    'Ports',
    ({ a }) => row.all('nodePorts').filter(port => port.nodeId === a),
    port => resources.adapterPort(row, port),
  )

  one('Fabrics/Row', () => resources.ethernetFabric)
  listOf('Fabrics/Row/Switches', 'SwitchCollection', 'Switches', () => row.all('switches'), resources.ethernetSwitch)
  listOf(
    'Fabrics/Row/Switches/:a/Ports',
    'PortCollection',
    'Ports',
    ({ a }) => row.all('switchPorts').filter(port => port.switchId === a),
    port => resources.ethernetSwitchPort(row, port),
  )
  one('Fabrics/Row/Switches/:a/Ports/:b', ({ b }) => resources.ethernetSwitchPort(row, row.one('switchPorts', b)))
  server.patch<{ Params: Params }>(`${root}/Fabrics/Row/Switches/:a/Ports/:b`, ({ params, body }) => {
    const { MaxFrameSize, Oem } = readSwitchPort(body)
    row.setSwitchPort(params.b, {
      ...(MaxFrameSize === undefined ? {} : { mtu: MaxFrameSize - headerBytes }),
      ...(Oem?.Mirefield?.VLANs === undefined ? {} : { vlans: Oem.Mirefield.VLANs }),
    })
    return resources.ethernetSwitchPort(row, row.one('switchPorts', params.b))
  })

  server.patch<{ Params: Params }>(`${root}/Chassis/:a/Drives/:b`, ({ params, body }) => {
    const drive = row.array.one('drives', params.b)
    row.array.store.commit([row.array.entry('drives', { ...drive, isLit: readDrive(body).LocationIndicatorActive })])
    return {}
  })
  server.post<{ Params: Params }>(`${root}/Chassis/:a/Drives/:b/Actions/Drive.SecureErase`, ({ params, body }, reply) =>
    accepted(reply, pools.eraseDrive(params.b, readErasure(body).SanitizationType === 'Overwrite')),
  )

  one('AggregationService', () => ({
    '@odata.id': `${root}/AggregationService`,
    '@odata.type': '#AggregationService.v1_0_4.AggregationService',
    Id: 'AggregationService',
    Name: 'Aggregation service',
    Aggregates: { '@odata.id': `${root}/AggregationService/Aggregates` },
  }))
  listOf(
    'AggregationService/Aggregates',
    'AggregateCollection',
    'Clusters',
    () => row.all('clusters'),
    resources.aggregate,
  )
  one('AggregationService/Aggregates/:a', ({ a }) => resources.aggregate(row.one('clusters', a)))
  server.post(`${root}/AggregationService/Aggregates`, ({ body }, reply) => {
    const { Name, Description, Elements } = readUnion(body)
    row.formCluster(Name, Description ?? '', Elements.map(idIn))
    const [task] = row.array
      .all('tasks')
      .filter(each => each.work === 'form-cluster')
      .slice(-1)
    return task === undefined ? reply.code(500).send() : accepted(reply, task)
  })
  server.patch<{ Params: Params }>(`${root}/AggregationService/Aggregates/:a`, ({ body, params }) => {
    row.setMembers(readMembers(body).Elements.map(idIn))
    return resources.aggregate(row.one('clusters', params.a))
  })
  server.delete(`${root}/AggregationService/Aggregates/:a`, (_, reply) => {
    row.dissolve()
    return reply.code(204).send()
  })

  server.post<{ Params: Params }>(
    `${root}/Storage/1/StoragePools/:a/Actions/StoragePool.AddDrives`,
    ({ params, body }, reply) => {
      const own = readDrives(body).Oem?.Mirefield
      return accepted(reply, pools.addDrives(params.a, (own?.Banks ?? []).map(bankOf), (own?.RatePercent ?? 50) / 100))
    },
  )
  server.post<{ Params: Params }>(
    `${root}/Storage/1/StoragePools/:a/Actions/StoragePool.RemoveDrives`,
    ({ params, body }, reply) => {
      const { Drives, Oem } = readDrives(body)
      return accepted(
        reply,
        pools.removeDrives(params.a, (Drives ?? []).map(idIn), (Oem?.Mirefield?.RatePercent ?? 50) / 100),
      )
    },
  )
}

/** The storage interface that a request describes; undefined where it leaves it as it is. */
function storageOf(wanted: InterfaceChange): StorageInterfaceEntity | null | undefined {
  if (wanted.Oem?.Mirefield?.CarriesStorage === false) return null
  const four = wanted.IPv4StaticAddresses?.[0]
  const six = wanted.IPv6StaticAddresses?.[0]
  const isLeasedFour = wanted.DHCPv4?.DHCPEnabled === true
  const isLeasedSix = wanted.DHCPv6?.OperatingMode === 'Stateful'
  const isLeased = isLeasedFour || isLeasedSix
  if (four === undefined && six === undefined && !isLeased) return undefined
  const vlan = wanted.VLAN?.VLANEnable === true ? (wanted.VLAN.VLANId ?? null) : null
  const common = { isReserved: false, vlan }
  if (isLeasedSix) return { ...common, family: 'IPv6', address: null, prefixLength: 64, origin: 'leased' }
  if (isLeasedFour) return { ...common, family: 'IPv4', address: null, prefixLength: 24, origin: 'leased' }
  if (six !== undefined)
    return { ...common, family: 'IPv6', address: six.Address, prefixLength: six.PrefixLength ?? 64, origin: 'static' }
  const mask = (four?.SubnetMask ?? '255.255.255.0').split('.').map(Number)
  const prefixLength = mask.reduce((bits, byte) => bits + byte.toString(2).replaceAll('0', '').length, 0)
  return { ...common, family: 'IPv4', address: four?.Address ?? null, prefixLength, origin: 'static' }
}
