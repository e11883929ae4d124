import type { Node, NodePort, PathProbe } from '../estate'
import { pathBetween, type Wiring } from './path'
import { readPath, type PathReading } from './readPath'

export interface PathCell extends PathReading {
  readonly fromNodeId: string
  readonly toNodeId: string
}

/** The port that carries a node's storage: the first with a storage interface. */
export const storagePort = (ports: readonly NodePort[], nodeId: string) =>
  ports.find(port => port.nodeId === nodeId && port.storage !== null)

/** Every pair of the latest probe with what it means. Computed once for each pair; 64 nodes are 4,032. */
export function pathMatrix(nodes: readonly Node[], wiring: Wiring, probe: PathProbe): PathCell[] {
  const portOf = new Map(nodes.map(node => [node.id, storagePort(wiring.ports, node.id)]))
  return probe.answers.flatMap(({ fromNodeId, toNodeId, passedMtu, why }) => {
    const from = portOf.get(fromNodeId)
    const to = portOf.get(toNodeId)
    if (from === undefined || to === undefined) return []
    const passes = passedMtu !== null && passedMtu >= probe.wantedMtu
    const hops = passes ? undefined : pathBetween(wiring, from, to)
    return [
      { fromNodeId, toNodeId, ...readPath(hops, from.storage?.vlan ?? null, probe.wantedMtu, { passedMtu, why }) },
    ]
  })
}
