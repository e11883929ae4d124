import type { ClusterEntity, NodeEntity, NodePortEntity, SimulatedRow, SwitchEntity, SwitchPortEntity } from '../row'
import { link, resource } from './resources'

/** Bodies of a row of nodes: computers, their managers and interfaces, switches, the union of nodes. Sources: DMTF DSP8010. */
const headerBytes = 18
const state = (isThere: boolean) =>
  isThere ? { State: 'Enabled', Health: 'OK' } : { State: 'UnavailableOffline', Health: 'Critical' }

export const computer = (row: SimulatedRow, node: NodeEntity) =>
  resource(`Systems/${node.id}`, 'ComputerSystem.v1_22_0.ComputerSystem', node.id, node.id, {
    SystemType: 'Physical',
    HostName: node.hostName,
    Model: node.model,
    SerialNumber: node.serial,
    BiosVersion: node.firmware,
    HostWatchdogTimer: { FunctionEnabled: node.isRestartServiceOn, TimeoutAction: 'ResetSystem' },
    MemorySummary: { TotalSystemMemoryGiB: 128 },
    EthernetInterfaces: link(`Systems/${node.id}/EthernetInterfaces`),
    Links: { Chassis: [link(`Chassis/${node.id}`)], ManagedBy: [link(`Managers/${node.id}`)] },
    Oem: { Mirefield: { MostCapacityDrives: node.mostCapacityDrives, AgentUri: row.agentUri(node.id) } },
    Status: state(row.isAnswering(node)),
  })

export const nodeManager = (row: SimulatedRow, node: NodeEntity) =>
  resource(`Managers/${node.id}`, 'Manager.v1_19_0.Manager', node.id, `Manager of ${node.id}`, {
    ManagerType: 'BMC',
    FirmwareVersion: node.firmware,
    DateTime: new Date(row.array.clock.now() + node.clockOffsetSeconds * 1000).toISOString(),
    DateTimeLocalOffset: '+00:00',
    Links: { ManagerForServers: [link(`Systems/${node.id}`)] },
    Status: state(row.isAnswering(node)),
  })

const maskOf = (prefixLength: number) =>
  [0, 1, 2, 3].map(byte => 256 - 2 ** (8 - Math.min(8, Math.max(0, prefixLength - 8 * byte)))).join('.')

export const ethernetInterface = (port: NodePortEntity) => {
  const { storage } = port
  const origin = storage?.origin === 'leased' ? (storage.family === 'IPv4' ? 'DHCP' : 'DHCPv6') : 'Static'
  const isFour = storage?.family === 'IPv4' && storage.address !== null
  const isSix = storage?.family === 'IPv6' && storage.address !== null
  return resource(
    `Systems/${port.nodeId}/EthernetInterfaces/${port.id}`,
    'EthernetInterface.v1_12_1.EthernetInterface',
    port.id,
    port.name,
    {
      MACAddress: port.mac,
      MTUSize: port.mtu,
      SpeedMbps: port.speedGbps * 1000,
      LinkStatus: port.isUp ? 'LinkUp' : 'LinkDown',
      InterfaceEnabled: true,
      VLAN: { VLANEnable: storage?.vlan != null, ...(storage?.vlan == null ? {} : { VLANId: storage.vlan }) },
      DHCPv4: { DHCPEnabled: origin === 'DHCP' },
      DHCPv6: { OperatingMode: origin === 'DHCPv6' ? 'Stateful' : 'Disabled' },
      IPv4Addresses: isFour
        ? [{ Address: storage.address, SubnetMask: maskOf(storage.prefixLength), AddressOrigin: origin }]
        : [],
      IPv6Addresses: isSix
        ? [{ Address: storage.address, PrefixLength: storage.prefixLength, AddressOrigin: origin }]
        : [],
      Oem: {
        Mirefield: {
          CarriesStorage: storage !== null,
          OtherTraffic: port.traffic,
          LeaseReserved: storage?.isReserved ?? false,
        },
      },
      Status: { State: 'Enabled', Health: port.isUp ? 'OK' : 'Warning' },
    },
  )
}

const portPath = (port: NodePortEntity) => `Chassis/${port.nodeId}/NetworkAdapters/1/Ports/${port.id}`

export const networkAdapter = (node: NodeEntity) =>
  resource(`Chassis/${node.id}/NetworkAdapters/1`, 'NetworkAdapter.v1_11_0.NetworkAdapter', '1', 'Network adapter', {
    Manufacturer: 'Mirefield',
    Ports: link(`Chassis/${node.id}/NetworkAdapters/1/Ports`),
  })

/** What the far end of the cable says of itself stands in the received link-layer discovery. Source: IEEE 802.1AB. */
export const adapterPort = (row: SimulatedRow, port: NodePortEntity) => {
  const far = row.one('switchPorts', port.switchPortId)
  return resource(portPath(port), 'Port.v1_13_0.Port', port.id, port.name, {
    PortProtocol: 'Ethernet',
    CurrentSpeedGbps: port.speedGbps,
    LinkStatus: port.isUp ? 'LinkUp' : 'LinkDown',
    Ethernet: {
      AssociatedMACAddresses: [port.mac],
      LLDPReceive: { ChassisId: far.switchId, PortId: far.id, SystemName: row.one('switches', far.switchId).name },
    },
  })
}

export const ethernetFabric = {
  '@odata.id': '/redfish/v1/Fabrics/Row',
  '@odata.type': '#Fabric.v1_3_2.Fabric',
  Id: 'Row',
  Name: 'Row network',
  FabricType: 'Ethernet',
  Switches: { '@odata.id': '/redfish/v1/Fabrics/Row/Switches' },
}

export const ethernetSwitch = (each: SwitchEntity) =>
  resource(`Fabrics/Row/Switches/${each.id}`, 'Switch.v1_9_3.Switch', each.id, each.name, {
    SwitchType: 'Ethernet',
    Model: each.model,
    FirmwareVersion: each.firmware,
    Ports: link(`Fabrics/Row/Switches/${each.id}/Ports`),
  })

export const ethernetSwitchPort = (row: SimulatedRow, each: SwitchPortEntity) => {
  const peer = each.peerPortId === null ? undefined : row.one('switchPorts', each.peerPortId)
  return resource(`Fabrics/Row/Switches/${each.switchId}/Ports/${each.id}`, 'Port.v1_13_0.Port', each.id, each.name, {
    PortProtocol: 'Ethernet',
    CurrentSpeedGbps: 25,
    LinkStatus: each.isUp ? 'LinkUp' : 'LinkDown',
    MaxFrameSize: each.mtu + headerBytes,
    ...(peer === undefined ? {} : { Ethernet: { LLDPReceive: { ChassisId: peer.switchId, PortId: peer.id } } }),
    Oem: { Mirefield: { VLANs: each.vlans } },
  })
}

export const aggregate = (each: ClusterEntity) =>
  resource('AggregationService/Aggregates/1', 'Aggregate.v1_0_3.Aggregate', '1', each.name, {
    Description: each.description,
    Elements: each.nodeIds.map(id => link(`Systems/${id}`)),
    ElementsCount: each.nodeIds.length,
    Status: { State: each.isReady ? 'Enabled' : 'Starting', Health: 'OK' },
  })
