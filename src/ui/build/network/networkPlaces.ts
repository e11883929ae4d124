import type { Node, NodePort, Switch, SwitchPort } from '@/core/estate'

export interface NetworkPlaces {
  readonly nodes: readonly { readonly node: Node; readonly x: number; readonly y: number; readonly width: number }[]
  readonly nodePorts: readonly { readonly port: NodePort; readonly x: number; readonly y: number }[]
  readonly switches: readonly {
    readonly each: Switch
    readonly x: number
    readonly y: number
    readonly width: number
  }[]
  readonly switchPorts: readonly { readonly port: SwitchPort; readonly x: number; readonly y: number }[]
  readonly cables: readonly {
    readonly id: string
    readonly from: { readonly x: number; readonly y: number }
    readonly to: { readonly x: number; readonly y: number }
    readonly nodePort: NodePort | undefined
    readonly switchPort: SwitchPort
  }[]
  readonly height: number
}

export const portPixels = { width: 40, height: 30 }
const nodePixels = { gap: 14, height: 78, top: 4 }
const switchPixels = { height: 46, gap: 22, top: 168 }

/** Where nodes, switches, ports and cables stand, in pixels: nodes above, switches below, each cable from port to port. */
export function networkPlaces(
  nodes: readonly Node[],
  nodePorts: readonly NodePort[],
  switches: readonly Switch[],
  switchPorts: readonly SwitchPort[],
  widthPixels: number,
): NetworkPlaces {
  const count = Math.max(1, nodes.length)
  const nodeWidth = Math.min(170, (widthPixels - nodePixels.gap * (count - 1)) / count)
  const placedNodes = nodes.map((node, index) => ({
    node,
    x: index * (nodeWidth + nodePixels.gap),
    y: nodePixels.top,
    width: nodeWidth,
  }))
  const placedPorts = placedNodes.flatMap(({ node, x }) => {
    const own = nodePorts.filter(port => port.nodeId === node.id)
    return own.map((port, index) => ({
      port,
      x: x + ((index + 0.5) * nodeWidth) / own.length,
      y: nodePixels.top + nodePixels.height,
    }))
  })
  const { placedSwitches, placedSwitchPorts } = switchPlaces(switches, switchPorts, widthPixels)
  return {
    nodes: placedNodes,
    nodePorts: placedPorts,
    switches: placedSwitches,
    switchPorts: placedSwitchPorts,
    cables: [...cablesDown(placedPorts, placedSwitchPorts), ...cablesBetween(placedSwitchPorts)],
    height: switchPixels.top + switches.length * (switchPixels.height + switchPixels.gap),
  }
}

function switchPlaces(switches: readonly Switch[], switchPorts: readonly SwitchPort[], widthPixels: number) {
  const placedSwitches = switches.map((each, index) => ({
    each,
    x: 0,
    y: switchPixels.top + index * (switchPixels.height + switchPixels.gap),
    width: widthPixels,
  }))
  const placedSwitchPorts = placedSwitches.flatMap(({ each, y }, place) => {
    const own = switchPorts.filter(port => port.switchId === each.id)
    const left = 96
    const step = (widthPixels - left - 8) / (Math.max(1, own.length) + 0.5)
    // Every other switch stands half a port aside, so that cables to it pass between the ports of the one above.
    const aside = place % 2 === 0 ? 0.5 : 1
    return own.map((port, index) => ({ port, x: left + (index + aside) * step, y }))
  })
  return { placedSwitches, placedSwitchPorts }
}

type PlacedPorts = NetworkPlaces['nodePorts']
type PlacedSwitchPorts = NetworkPlaces['switchPorts']
type Cables = NetworkPlaces['cables'][number][]
const byPort = (placed: PlacedSwitchPorts) => new Map(placed.map(each => [each.port.id, each]))

/** Cables from nodes to switches. */
function cablesDown(ports: PlacedPorts, switchPorts: PlacedSwitchPorts): Cables {
  const portAt = byPort(switchPorts)
  return ports.flatMap(({ port, x, y }) => {
    const far = portAt.get(port.switchPortId ?? '')
    if (far === undefined) return []
    const from = { x, y: y + portPixels.height / 2 }
    return [{ id: port.id, from, to: { x: far.x, y: far.y + 6 }, nodePort: port, switchPort: far.port }]
  })
}

/** Cables from one switch to the next, each once. */
function cablesBetween(switchPorts: PlacedSwitchPorts): Cables {
  const portAt = byPort(switchPorts)
  return switchPorts.flatMap(({ port, x, y }) => {
    const far = portAt.get(port.peerPortId ?? '')
    if (far === undefined || far.y <= y) return []
    const from = { x, y: y + switchPixels.height - 8 }
    return [{ id: port.id, from, to: { x: far.x, y: far.y + 6 }, nodePort: undefined, switchPort: port }]
  })
}
