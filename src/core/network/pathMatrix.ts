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
  const { verdict, hop, words, remedy } = passing
  const cells: PathCell[] = []
  for (const { fromNodeId, toNodeId, passedMtu, why } of probe.answers) {
    const from = portOf.get(fromNodeId)
    const to = portOf.get(toNodeId)
    if (from === undefined || to === undefined) continue
    if (passedMtu !== null && passedMtu >= probe.wantedMtu) {
      cells.push({ fromNodeId, toNodeId, verdict, hop, words, remedy })
      continue
    }
    const hops = pathBetween(wiring, from, to)
    const reading = readPath(hops, from.storage?.vlan ?? null, probe.wantedMtu, { passedMtu, why })
    cells.push({ fromNodeId, toNodeId, ...reading })
  }
  return cells
}

/** What a probe says of itself, whichever nodes are asked for: seen once, since thousands of its answers are alike. */
interface Seen {
  readonly nodeIds: ReadonlySet<string>
  /** Whether every pair of its nodes has an answer, once. */
  readonly isWhole: boolean
  readonly failing: PathProbe['answers']
}
const seenBefore = new WeakMap<PathProbe, Seen>()

function see(probe: PathProbe): Seen {
  const known = seenBefore.get(probe)
  if (known !== undefined) return known
  const { answers, wantedMtu } = probe
  const nodeIds = new Set(answers.flatMap(({ fromNodeId, toNodeId }) => [fromNodeId, toNodeId]))
  const pairs = new Set(answers.map(({ fromNodeId, toNodeId }) => `${fromNodeId} ${toNodeId}`))
  const isWhole = pairs.size === answers.length && answers.length === nodeIds.size * (nodeIds.size - 1)
  const failing = answers.filter(({ passedMtu }) => passedMtu === null || passedMtu < wantedMtu)
  const seen = { nodeIds, isWhole, failing }
  seenBefore.set(probe, seen)
  return seen
}

/** The paths between some nodes that do not pass whole packets, and of how many paths between them the probe says anything. */
export function failingPaths(
  nodes: readonly Node[],
  wiring: Wiring,
  probe: PathProbe,
): { readonly failing: readonly PathCell[]; readonly probed: number } {
  const { nodeIds, isWhole, failing } = see(probe)
  const withPort = nodes.filter(({ id }) => nodeIds.has(id) && storagePort(wiring.ports, id) !== undefined)
  const ids = new Set(withPort.map(({ id }) => id))
  const isAmong = ({ fromNodeId, toNodeId }: PathProbe['answers'][number]) => ids.has(fromNodeId) && ids.has(toNodeId)
  return {
    failing: pathMatrix(withPort, wiring, { ...probe, answers: failing.filter(isAmong) }),
    probed: isWhole ? ids.size * Math.max(0, ids.size - 1) : probe.answers.filter(isAmong).length,
  }
}
