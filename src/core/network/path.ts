import type { NodePort, Switch, SwitchPort } from '../estate'

/** Where packets pass: a node's port or a switch's port. */
export interface Hop {
  readonly kind: 'node port' | 'switch port'
  readonly id: string
  /** `godwit-3 port 1` or `row switch 1 port 7`. */
  readonly words: string
  readonly mtu: number
  readonly isUp: boolean
  /** The VLANs that it carries; undefined for a node's port, which tags its own. */
  readonly vlans: readonly number[] | undefined
}

/** What stands between nodes, as the inventory states it. */
export interface Wiring {
  readonly ports: readonly NodePort[]
  readonly switches: readonly Switch[]
  readonly switchPorts: readonly SwitchPort[]
  readonly nodeName: (nodeId: string) => string
}

/**
 * The way from one node's port to another's: out of the port, into a switch, across to others where they are cabled
 * together, and out to the far port. Undefined where the cabling that the ends state does not join them.
 */
export function pathBetween(wiring: Omit<Wiring, 'ports'>, from: NodePort, to: NodePort): Hop[] | undefined {
  const { byId, nameOf } = indexOf(wiring)
  const first = byId.get(from.switchPortId ?? '')
  const last = byId.get(to.switchPortId ?? '')
  if (first === undefined || last === undefined) return undefined
  const between = acrossSwitches(wiring.switchPorts, byId, first.switchId, last.switchId)
  if (between === undefined) return undefined
  const atSwitch = (port: SwitchPort): Hop => ({
    kind: 'switch port',
    id: port.id,
    words: `${nameOf.get(port.switchId) ?? 'switch'} port ${port.name}`,
    mtu: port.mtu,
    isUp: port.isUp,
    vlans: port.vlans,
  })
  const atNode = (port: NodePort): Hop => ({
    kind: 'node port',
    id: port.id,
    words: `${wiring.nodeName(port.nodeId)} ${port.name}`,
    mtu: port.mtu,
    isUp: port.isUp,
    vlans: undefined,
  })
  return [atNode(from), ...[first, ...between, last].map(atSwitch), atNode(to)]
}

interface Index {
  readonly byId: ReadonlyMap<string, SwitchPort>
  readonly nameOf: ReadonlyMap<string, string>
}
/** A matrix asks for thousands of paths of the same wiring: what it looks up by is made once. */
const indices = new WeakMap<object, Index>()

function indexOf(wiring: Omit<Wiring, 'ports'>): Index {
  const known = indices.get(wiring)
  if (known !== undefined) return known
  const made = {
    byId: new Map(wiring.switchPorts.map(port => [port.id, port])),
    nameOf: new Map(wiring.switches.map(each => [each.id, each.name])),
  }
  indices.set(wiring, made)
  return made
}

/** The ports between two switches over the fewest cables: both ends of each. */
function acrossSwitches(
  ports: readonly SwitchPort[],
  byId: ReadonlyMap<string, SwitchPort>,
  from: string,
  to: string,
): SwitchPort[] | undefined {
  const reached = new Map<string, SwitchPort[]>([[from, []]])
  const queue = [from]
  for (const here of queue) {
    if (here === to) return reached.get(here)
    for (const port of ports) {
      const far = byId.get(port.peerPortId ?? '')
      if (port.switchId !== here || far === undefined || reached.has(far.switchId)) continue
      reached.set(far.switchId, [...(reached.get(here) ?? []), port, far])
      queue.push(far.switchId)
    }
  }
  return undefined
}
