import type { StorageInterface } from '@/core/estate'
import type { Inventory } from '@/ports'
import type { Connection } from '../Connection'
import { ofMaker } from '../makers'
import { isAdapter, isEthernetPort, isSwitch, isSwitchedFabric, type EthernetInterface } from './schema'

/** What a frame has around the packet: addresses, type and checksum. Source: IEEE 802.3. */
export const headerBytes = 18

/** The storage interface of a port; null where it carries none. */
export function storageOf(port: EthernetInterface): StorageInterface | null {
  const { carriesStorage, isReserved } = ofMaker.interface(port)
  if (!carriesStorage) return null
  const vlan = port.VLAN?.VLANEnable === true ? (port.VLAN.VLANId ?? null) : null
  const six = port.IPv6Addresses?.[0]
  if (six !== undefined) {
    const origin = six.AddressOrigin === 'DHCPv6' ? ('leased' as const) : ('static' as const)
    return { family: 'IPv6', address: six.Address, prefixLength: six.PrefixLength ?? 64, origin, isReserved, vlan }
  }
  if (port.DHCPv6?.OperatingMode === 'Stateful')
    return { family: 'IPv6', address: null, prefixLength: 64, origin: 'leased', isReserved, vlan }
  const four = port.IPv4Addresses?.[0]
  const origin = port.DHCPv4?.DHCPEnabled === true ? ('leased' as const) : ('static' as const)
  const prefixLength = four === undefined ? 24 : prefixOf(four.SubnetMask ?? '255.255.255.0')
  return { family: 'IPv4', address: four?.Address ?? null, prefixLength, origin, isReserved, vlan }
}

const prefixOf = (mask: string) =>
  mask.split('.').reduce((bits, byte) => bits + Number(byte).toString(2).replaceAll('0', '').length, 0)

/** The switch port at the far end of each cable, by the MAC address of the near one. Source: IEEE 802.1AB, as received. */
export async function readFarEnds(connection: Connection, chassis: string | null): Promise<Map<string, string>> {
  if (chassis === null) return new Map()
  const adapters = await connection.members(`${chassis}/NetworkAdapters`, isAdapter)
  const farEnds = new Map<string, string>()
  for (const adapter of adapters) {
    const ports =
      adapter.Ports === undefined ? [] : await connection.members(adapter.Ports['@odata.id'], isEthernetPort)
    for (const port of ports) {
      const mac = port.Ethernet?.AssociatedMACAddresses?.[0]
      const far = port.Ethernet?.LLDPReceive
      if (mac !== undefined && far !== undefined) farEnds.set(mac, `${far.ChassisId ?? ''}/${far.PortId ?? ''}`)
    }
  }
  return farEnds
}

export async function readSwitches(connection: Connection, fabricsPath: string | undefined) {
  const switches: Inventory['switches'][number][] = []
  const found: { key: string; far: string; port: Omit<Inventory['switchPorts'][number], 'peerPortLocator'> }[] = []
  const fabrics = fabricsPath === undefined ? [] : await connection.members(fabricsPath, isSwitchedFabric)
  for (const fabric of fabrics) {
    const own = fabric.Switches === undefined ? [] : await connection.members(fabric.Switches['@odata.id'], isSwitch)
    for (const each of own) {
      const switchLocator = each['@odata.id']
      switches.push({
        locator: switchLocator,
        name: each.Name,
        model: each.Model ?? null,
        firmware: each.FirmwareVersion ?? null,
      })
      const ports = each.Ports === undefined ? [] : await connection.members(each.Ports['@odata.id'], isEthernetPort)
      for (const port of ports) {
        const far = port.Ethernet?.LLDPReceive
        found.push({
          key: `${each.Id ?? ''}/${port.Id ?? ''}`,
          far: far === undefined ? '' : `${far.ChassisId ?? ''}/${far.PortId ?? ''}`,
          port: {
            locator: port['@odata.id'],
            switchLocator,
            name: port.Name,
            mtu: (port.MaxFrameSize ?? 1500 + headerBytes) - headerBytes,
            vlans: [...ofMaker.vlans(port)],
            isUp: port.LinkStatus === 'LinkUp',
          },
        })
      }
    }
  }
  const locatorOf = new Map(found.map(({ key, port }) => [key, port.locator]))
  const switchPorts = new Map(
    found.map(({ key, far, port }) => [key, { ...port, peerPortLocator: locatorOf.get(far) ?? null }]),
  )
  return { switches, switchPorts }
}
