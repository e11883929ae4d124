import type { NodeEntity, NodePortEntity, SimulatedRow, StorageInterfaceEntity } from '../../row'
import type { RowService } from '../RowService'
import { link, status, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { text } from '../reader'
import { drivePath } from './drives'

const restartService = {
  type: 'object',
  required: ['HostWatchdogTimer'],
  additionalProperties: false,
  properties: {
    HostWatchdogTimer: {
      type: 'object',
      required: ['FunctionEnabled'],
      properties: { FunctionEnabled: { type: 'boolean' } },
    },
  },
} as const
const resets = ['On', 'ForceOff', 'GracefulShutdown', 'ForceRestart', 'GracefulRestart'] as const
const reset = { type: 'object', required: ['ResetType'], properties: { ResetType: { enum: resets } } } as const
const addressed = (more: Readonly<Record<string, { readonly type: 'integer' } | typeof text>>) =>
  ({
    type: 'array',
    maxItems: 1,
    items: { type: 'object', required: ['Address'], properties: { Address: text, ...more } },
  }) as const
const interfaceChange = {
  type: 'object',
  properties: {
    MTUSize: { type: 'integer' },
    VLAN: {
      type: 'object',
      properties: { VLANEnable: { type: 'boolean' }, VLANId: { type: 'integer', minimum: 1, maximum: 4094 } },
    },
    IPv4StaticAddresses: addressed({ SubnetMask: text }),
    IPv6StaticAddresses: addressed({ PrefixLength: { type: 'integer' } }),
    DHCPv4: { type: 'object', properties: { DHCPEnabled: { type: 'boolean' } } },
    DHCPv6: { type: 'object', properties: { OperatingMode: { enum: ['Stateful', 'Stateless', 'Disabled'] } } },
    Oem: {
      type: 'object',
      properties: { Mirefield: { type: 'object', properties: { CarriesStorage: { type: 'boolean' } } } },
    },
  },
} as const
interface InterfaceChange {
  readonly MTUSize?: number
  readonly VLAN?: { readonly VLANEnable?: boolean; readonly VLANId?: number }
  readonly IPv4StaticAddresses?: readonly { readonly Address: string; readonly SubnetMask?: string }[]
  readonly IPv6StaticAddresses?: readonly { readonly Address: string; readonly PrefixLength?: number }[]
  readonly DHCPv4?: { readonly DHCPEnabled?: boolean }
  readonly DHCPv6?: { readonly OperatingMode?: 'Stateful' | 'Stateless' | 'Disabled' }
  readonly Oem?: { readonly Mirefield?: { readonly CarriesStorage?: boolean } }
}

/** The computers of a row: power, restart service, interfaces, and the drives that each holds. */
export function systemPlaces({ row, pools }: RowService): Place[] {
  const node = (id: string | undefined) => row.all('nodes').find(each => each.id === id)
  return [
    ...placesOf<NodeEntity>({
      path: 'Systems/:node',
      type: 'ComputerSystem.v1_22_0.ComputerSystem',
      title: 'Computers',
      members: () => row.all('nodes'),
      idOf: each => each.id,
      nameOf: each => each.id,
      body: each => computer(row, each),
      change: accepts(restartService, ({ HostWatchdogTimer }, each: NodeEntity) => {
        row.setRestartService(each.id, HostWatchdogTimer.FunctionEnabled)
        return undefined
      }),
      actions: {
        Reset: {
          allowable: { ResetType: resets },
          accepts: accepts(reset, ({ ResetType }, each: NodeEntity) => {
            if (ResetType === 'ForceRestart' || ResetType === 'GracefulRestart') row.restart(each.id)
            else row.setPower(each.id, ResetType === 'On')
            if (ResetType === 'On' && !each.isUp) pools.faults.nodeIsBack(each.id)
            return undefined
          }),
        },
      },
    }),
    ...nodeStoragePlaces(node, row),
    ...interfacePlaces(node, row),
  ]
}

const computer = (row: SimulatedRow, node: NodeEntity): Body => ({
  SystemType: 'Physical',
  Manufacturer: row.array.model.maker,
  HostName: node.hostName,
  Model: node.model,
  SerialNumber: node.serial,
  BiosVersion: node.firmware,
  PowerState: node.isUp ? 'On' : 'Off',
  IndicatorLED: 'Off',
  Boot: { BootSourceOverrideEnabled: 'Disabled', BootSourceOverrideTarget: 'None', BootSourceOverrideMode: 'UEFI' },
  HostWatchdogTimer: { FunctionEnabled: node.isRestartServiceOn, TimeoutAction: 'ResetSystem' },
  MemorySummary: { TotalSystemMemoryGiB: 128 },
  EthernetInterfaces: link(`Systems/${node.id}/EthernetInterfaces`),
  Storage: link(`Systems/${node.id}/Storage`),
  Links: { Chassis: [link(`Chassis/${node.id}`)], ManagedBy: [link(`Managers/${node.id}`)] },
  Oem: { Mirefield: { MostCapacityDrives: node.mostCapacityDrives, AgentUri: row.agentUri(node.id) } },
  Status: status(row.isAnswering(node), row.isAnswering(node) ? 'Enabled' : 'UnavailableOffline'),
})

const maskOf = (prefixLength: number) =>
  [0, 1, 2, 3].map(byte => 256 - 2 ** (8 - Math.min(8, Math.max(0, prefixLength - 8 * byte)))).join('.')

function interfaceBody(port: NodePortEntity): Body {
  const { storage } = port
  const origin = storage?.origin === 'leased' ? (storage.family === 'IPv4' ? 'DHCP' : 'DHCPv6') : 'Static'
  const isFour = storage?.family === 'IPv4' && storage.address !== null
  const isSix = storage?.family === 'IPv6' && storage.address !== null
  return {
    MACAddress: port.mac,
    PermanentMACAddress: port.mac,
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
    Links: { Chassis: link(`Chassis/${port.nodeId}`) },
  }
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

const nodeStoragePlaces = (node: (id: string | undefined) => NodeEntity | undefined, row: SimulatedRow): Place[] =>
  placesOf<NodeEntity>({
    path: 'Systems/:node/Storage/:storage',
    type: 'Storage.v1_17_0.Storage',
    title: 'Storage',
    members: ids => {
      const each = node(ids['node'])
      return each === undefined ? undefined : [each]
    },
    idOf: () => '1',
    nameOf: each => `Drives of ${each.id}`,
    body: each => {
      const own = row.array.all('drives').filter(drive => drive.enclosureId === each.id && !drive.isPulled)
      return {
        Drives: own.map(drive => link(drivePath(drive))),
        'Drives@odata.count': own.length,
        Links: { Enclosures: [link(`Chassis/${each.id}`)] },
        Status: status(row.isAnswering(each)),
      }
    },
  })

const interfacePlaces = (node: (id: string | undefined) => NodeEntity | undefined, row: SimulatedRow): Place[] =>
  placesOf<NodePortEntity>({
    path: 'Systems/:node/EthernetInterfaces/:interface',
    type: 'EthernetInterface.v1_12_1.EthernetInterface',
    title: 'Interfaces',
    members: ids =>
      node(ids['node']) === undefined ? undefined : row.all('nodePorts').filter(port => port.nodeId === ids['node']),
    idOf: each => each.id,
    nameOf: each => each.name,
    body: interfaceBody,
    change: accepts(interfaceChange, (given, each: NodePortEntity) => {
      const wanted = given as InterfaceChange
      const storage = storageOf(wanted)
      row.setInterface(each.id, {
        ...(wanted.MTUSize === undefined ? {} : { mtu: wanted.MTUSize }),
        ...(storage === undefined ? {} : { storage }),
      })
      return undefined
    }),
  })
