import type { NodeEntity, NodePortEntity, SimulatedRow, SwitchEntity, SwitchPortEntity } from '../../row'
import { link, status, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import type { RowService } from '../RowService'

/** What a frame has around the packet: addresses, type and checksum. Source: IEEE 802.3. */
const headerBytes = 18
const switchPortChange = {
  type: 'object',
  properties: {
    MaxFrameSize: { type: 'integer' },
    Oem: {
      type: 'object',
      properties: {
        Mirefield: {
          type: 'object',
          properties: { VLANs: { type: 'array', items: { type: 'integer', minimum: 1, maximum: 4094 } } },
        },
      },
    },
  },
} as const

interface Fabric {
  readonly id: 'SAN' | 'Row'
  readonly name: string
  readonly body: Body
}
const hostAccess: Fabric = {
  id: 'SAN',
  name: 'Host access',
  body: {
    FabricType: 'iSCSI',
    Endpoints: link('Fabrics/SAN/Endpoints'),
    EndpointGroups: link('Fabrics/SAN/EndpointGroups'),
    Connections: link('Fabrics/SAN/Connections'),
  },
}
const rowNetwork: Fabric = {
  id: 'Row',
  name: 'Row network',
  body: {
    FabricType: 'Ethernet',
    Switches: link('Fabrics/Row/Switches'),
    Endpoints: link('Fabrics/Row/Endpoints'),
  },
}

/** The fabric by which hosts reach volumes, and between the nodes of a row that of its switches. */
export function fabricPlaces(nodes?: RowService): Place[] {
  const fabrics = placesOf<Fabric>({
    path: 'Fabrics/:fabric',
    type: 'Fabric.v1_3_2.Fabric',
    title: 'Fabrics',
    members: () => (nodes === undefined ? [hostAccess] : [hostAccess, rowNetwork]),
    idOf: each => each.id,
    nameOf: each => each.name,
    body: each => ({ ...each.body, Status: status(true) }),
  })
  return nodes === undefined
    ? fabrics
    : [...fabrics, ...switchPlaces(nodes.row), ...endpointPlaces(nodes.row), ...adapterPlaces(nodes.row)]
}

function switchPlaces(row: SimulatedRow): Place[] {
  return [
    ...placesOf<SwitchEntity>({
      path: 'Fabrics/Row/Switches/:switch',
      type: 'Switch.v1_9_3.Switch',
      title: 'Switches',
      members: () => row.all('switches'),
      idOf: each => each.id,
      nameOf: each => each.name,
      body: each => ({
        SwitchType: 'Ethernet',
        Model: each.model,
        FirmwareVersion: each.firmware,
        Ports: link(`Fabrics/Row/Switches/${each.id}/Ports`),
        Status: status(true),
      }),
    }),
    ...placesOf<SwitchPortEntity>({
      path: 'Fabrics/Row/Switches/:switch/Ports/:port',
      type: 'Port.v1_13_0.Port',
      title: 'Ports',
      members: ids =>
        row.all('switches').some(each => each.id === ids['switch'])
          ? row.all('switchPorts').filter(port => port.switchId === ids['switch'])
          : undefined,
      idOf: each => each.id,
      nameOf: each => each.name,
      body: each => switchPort(row, each),
      change: accepts(switchPortChange, ({ MaxFrameSize, Oem }, each: SwitchPortEntity) => {
        row.setSwitchPort(each.id, {
          ...(MaxFrameSize === undefined ? {} : { mtu: MaxFrameSize - headerBytes }),
          ...(Oem?.Mirefield?.VLANs === undefined ? {} : { vlans: Oem.Mirefield.VLANs }),
        })
        return undefined
      }),
    }),
  ]
}

/** What the fabric joins: the ports of the nodes, by their addresses on the wire. */
const endpointPlaces = (row: SimulatedRow): Place[] =>
  placesOf<NodePortEntity>({
    path: 'Fabrics/Row/Endpoints/:endpoint',
    type: 'Endpoint.v1_8_1.Endpoint',
    title: 'Endpoints',
    members: () => row.all('nodePorts'),
    idOf: each => each.id,
    nameOf: each => each.name,
    body: each => ({
      EndpointProtocol: 'Ethernet',
      Identifiers: [{ DurableNameFormat: 'MACAddress', DurableName: each.mac }],
      ConnectedEntities: [
        { EntityType: 'ComputerSystem', EntityRole: 'Both', EntityLink: link(`Systems/${each.nodeId}`) },
      ],
      Status: status(each.isUp),
    }),
  })

function adapterPlaces(row: SimulatedRow): Place[] {
  const node = (id: string | undefined) => row.all('nodes').find(each => each.id === id)
  return [
    ...placesOf<NodeEntity>({
      path: 'Chassis/:chassis/NetworkAdapters/:adapter',
      type: 'NetworkAdapter.v1_11_0.NetworkAdapter',
      title: 'Adapters',
      members: ({ chassis }) => {
        const each = node(chassis)
        return each === undefined ? undefined : [each]
      },
      idOf: () => '1',
      nameOf: () => 'Network adapter',
      body: each => ({
        Manufacturer: row.array.model.maker,
        Model: 'Dual-port adapter',
        Ports: link(`Chassis/${each.id}/NetworkAdapters/1/Ports`),
        Status: status(true),
      }),
    }),
    ...placesOf<NodePortEntity>({
      path: 'Chassis/:chassis/NetworkAdapters/1/Ports/:port',
      type: 'Port.v1_13_0.Port',
      title: 'Ports',
      members: ({ chassis }) =>
        node(chassis) === undefined ? undefined : row.all('nodePorts').filter(port => port.nodeId === chassis),
      idOf: each => each.id,
      nameOf: each => each.name,
      body: each => adapterPort(row, each),
    }),
  ]
}

/** What the far end of the cable says of itself stands in the received link-layer discovery. Source: IEEE 802.1AB. */
function adapterPort(row: SimulatedRow, port: NodePortEntity): Body {
  const far = row.one('switchPorts', port.switchPortId)
  return {
    PortProtocol: 'Ethernet',
    CurrentSpeedGbps: port.speedGbps,
    LinkStatus: port.isUp ? 'LinkUp' : 'LinkDown',
    Ethernet: {
      AssociatedMACAddresses: [port.mac],
      LLDPReceive: { ChassisId: far.switchId, PortId: far.id, SystemName: row.one('switches', far.switchId).name },
    },
    Status: status(port.isUp),
  }
}

function switchPort(row: SimulatedRow, each: SwitchPortEntity): Body {
  const peer = each.peerPortId === null ? undefined : row.one('switchPorts', each.peerPortId)
  return {
    PortProtocol: 'Ethernet',
    CurrentSpeedGbps: 25,
    LinkStatus: each.isUp ? 'LinkUp' : 'LinkDown',
    MaxFrameSize: each.mtu + headerBytes,
    ...(peer === undefined ? {} : { Ethernet: { LLDPReceive: { ChassisId: peer.switchId, PortId: peer.id } } }),
    Oem: { Mirefield: { VLANs: each.vlans } },
    Status: status(each.isUp),
  }
}
