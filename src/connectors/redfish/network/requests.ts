import { NotOffered, type Interfaces, type InterfaceWanted, type SwitchPorts } from '@/ports'
import { ofMaker } from '../makers'
import type { Offer, Reach } from '../Reach'
import { headerBytes, storageOf } from './read'
import { isEthernetInterface, isEthernetPort } from './schema'

const maskOf = (prefixLength: number) =>
  [0, 1, 2, 3].map(byte => 256 - 2 ** (8 - Math.min(8, Math.max(0, prefixLength - 8 * byte)))).join('.')

/** How an interface comes to its address. Source: DMTF EthernetInterface schema. */
const addressing = ({ family, origin, address, prefixLength }: InterfaceWanted['storage']) => {
  const isLeased = origin === 'leased'
  return {
    DHCPv4: { DHCPEnabled: isLeased && family === 'IPv4' },
    DHCPv6: { OperatingMode: isLeased && family === 'IPv6' ? 'Stateful' : 'Disabled' },
    ...(isLeased
      ? {}
      : family === 'IPv4'
        ? { IPv4StaticAddresses: [{ Address: address, SubnetMask: maskOf(prefixLength) }] }
        : { IPv6StaticAddresses: [{ Address: address, PrefixLength: prefixLength }] }),
  }
}

function ownRequests({ connection, map }: Reach, resource: 'interfaces' | 'switchPorts') {
  const own = ofMaker.requests(map.identity.maker)
  if (own === undefined || map.computers === undefined)
    throw new NotOffered(connection.endpoint.address, resource, 'It is no row of nodes of a maker that is known.')
  return own
}

/** The interfaces of a row's nodes. */
export const interfaces: Offer<'interfaces'> = (reach): Interfaces => {
  const own = ownRequests(reach, 'interfaces')
  const { connection } = reach
  return {
    async at(locator) {
      const found = await connection.read(locator, isEthernetInterface)
      return { mtu: found.MTUSize ?? 1500, storage: storageOf(found) }
    },
    async set(locator, { mtu, storage }) {
      await connection.change('PATCH', locator, {
        MTUSize: mtu,
        VLAN: { VLANEnable: storage.vlan !== null, ...(storage.vlan === null ? {} : { VLANId: storage.vlan }) },
        ...addressing(storage),
        ...own.carriesStorage(true),
      })
    },
    async clear(locator) {
      await connection.change('PATCH', locator, own.carriesStorage(false))
    },
  }
}

/** The ports of the switches between a row's nodes. */
export const switchPorts: Offer<'switchPorts'> = (reach): SwitchPorts => {
  const own = ownRequests(reach, 'switchPorts')
  const { connection } = reach
  return {
    async at(locator) {
      const found = await connection.read(locator, isEthernetPort)
      return { mtu: (found.MaxFrameSize ?? 0) - headerBytes, vlans: ofMaker.vlans(found) }
    },
    async set(locator, { mtu, vlans }) {
      await connection.change('PATCH', locator, { MaxFrameSize: mtu + headerBytes, ...own.vlans(vlans) })
    },
  }
}
