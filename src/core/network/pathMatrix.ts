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
  // Of thousands of paths most pass, and all that do are told alike.
  const passing = readPath(undefined, null, probe.wantedMtu, { passedMtu: probe.wantedMtu, why: null })
  return probe.answers.flatMap(({ fromNodeId, toNodeId, passedMtu, why }) => {
    const from = portOf.get(fromNodeId)
    const to = portOf.get(toNodeId)
    if (from === undefined || to === undefined) return []
    if (passedMtu !== null && passedMtu >= probe.wantedMtu) return [{ fromNodeId, toNodeId, ...passing }]
    const hops = pathBetween(wiring, from, to)
    return [
      { fromNodeId, toNodeId, ...readPath(hops, from.storage?.vlan ?? null, probe.wantedMtu, { passedMtu, why }) },
    ]
  })
}
