import { pathBetween, plainAddress } from '@/core/network'
import type { NodePortEntity, SwitchEntity, SwitchPortEntity } from './entities'

const smallestMtu = 576

/** What of a row the way of a packet depends on. */
interface Wired {
  readonly nodePorts: readonly NodePortEntity[]
  readonly switches: readonly SwitchEntity[]
  readonly switchPorts: readonly SwitchPortEntity[]
  readonly isAnswering: (nodeId: string) => boolean
}

/** The ports and cables of a row as they are at one moment: read once for as many packets as are sent at a time. */
export class Wires {
  readonly #ports: readonly NodePortEntity[]
  readonly #holders = new Map<string, NodePortEntity[]>()
  readonly #wiring: Parameters<typeof pathBetween>[0]

  constructor(private readonly row: Wired) {
    this.#ports = row.nodePorts.filter(port => port.storage !== null)
    for (const port of this.#ports) {
      const address = port.storage?.address
      if (address != null) this.#holders.set(address, [...(this.#holders.get(address) ?? []), port])
    }
    const ours = { systemId: '', locator: '', revision: 1 }
    this.#wiring = {
      switches: row.switches.map(each => ({ ...each, ...ours })),
      switchPorts: row.switchPorts.map(each => ({ ...each, ...ours, vlans: [...each.vlans] })),
      nodeName: id => id,
    }
  }

  /** The largest packet, up to `mtu`, that goes whole from a node to an address; null where none comes back. */
  passes(fromNodeId: string, address: string, mtu: number): number | null {
    const from = this.#ports.find(port => port.nodeId === fromNodeId)
    const own = plainAddress(address)
    const holders = (own === undefined ? [] : (this.#holders.get(own) ?? [])).filter(port => port.nodeId !== fromNodeId)
    const [to] = holders
    // An address that two nodes hold answers neither reliably; one that the sender holds itself never leaves it.
    if (from === undefined || to === undefined || holders.length > 1 || from.storage?.address === own) return null
    if (!this.row.isAnswering(to.nodeId) || from.storage?.vlan !== to.storage?.vlan) return null
    const vlan = from.storage?.vlan ?? null
    const hops = pathBetween(this.#wiring, asPort(from), asPort(to))
    const isOpen = hops?.every(hop => hop.isUp && (vlan === null || hop.vlans?.includes(vlan) !== false)) ?? false
    if (hops === undefined || !isOpen) return null
    const narrowest = Math.min(...hops.map(hop => hop.mtu))
    if (narrowest >= mtu) return mtu
    return narrowest >= smallestMtu ? narrowest : null
  }
}

const asPort = (port: NodePortEntity) => ({
  ...port,
  systemId: '',
  locator: '',
  revision: 1,
  speedBitsPerSecond: port.speedGbps * 1e9,
  traffic: [...port.traffic],
})

/** Bytes a second that storage gets of a port when all else on it is busy. */
export const linkRate = (port: NodePortEntity) => (port.speedGbps * 1e9) / 8 / (1 + port.traffic.length)
