import { setNodeClockIntent, setRestartServiceIntent } from '../intents'
import { mending } from './mending'
import { type Node } from '../estate'
import { found } from './found'
import type { Finding } from './Finding'

/** Clocks further apart than this confuse which write came last (seconds). */
export const clockToleranceSeconds = 5

export const list = (words: readonly string[], most = 4) =>
  words.length <= most ? words.join(', ') : `${words.slice(0, most).join(', ')} and ${words.length - most} more`

export const nodeFindings = (node: Node): Finding[] => [
  ...(node.state === 'fine' ? [] : [silent(node)]),
  ...(Math.abs(node.clockOffsetSeconds) > clockToleranceSeconds ? [clockOff(node)] : []),
  ...(!node.isRestartServiceOn && node.state === 'fine' ? [restartOff(node)] : []),
]

const silent = (node: Node) =>
  found('node-silent', node.id, 'now', `${node.name} does not answer`, {
    evidence: 'The row states that the node is offline.',
    risk: 'All drives in it are out of reach; what has pieces there is short of them.',
    remedy:
      'See whether it has power and whether it is starting; after ten minutes its pieces are made anew elsewhere.',
    offline: `${node.rack ?? 'No rack is stated'}, ${node.name}: look at its power and its link lights.`,
  })

function clockOff(node: Node): Finding {
  const words = `${Math.abs(node.clockOffsetSeconds).toFixed(0)} s ${node.clockOffsetSeconds > 0 ? 'ahead' : 'behind'}`
  return found('clock-off', node.id, 'soon', `The clock of ${node.name} is ${words}`, {
    evidence: `Its own time less the row's: ${node.clockOffsetSeconds.toFixed(1)} s; up to ${clockToleranceSeconds} s is tolerated.`,
    risk: 'Logs do not line up, certificates may seem invalid, and a cluster refuses the node.',
    remedy: 'Set its clock.',
    draft: mending(setNodeClockIntent, { systemId: node.systemId, nodeId: node.id }),
    offline: 'Set the time in the node itself, and see why it has no time source.',
  })
}

const restartOff = (node: Node) =>
  found('restart-off', node.id, 'soon', `The restart service of ${node.name} is off`, {
    evidence: 'The node states that its restart service is not enabled.',
    risk: 'If its storage services hang, nobody restarts them.',
    remedy: 'A running change may have switched it off and will switch it on; else switch it on again.',
    draft: mending(
      setRestartServiceIntent,
      { systemId: node.systemId, nodeIds: [node.id], isOn: true },
      { node: node.id },
    ),
    offline: 'Switch it on in the node.',
  })

export function firmwareFindings(nodes: readonly Node[]): Finding[] {
  const byVersion = new Map<string, string[]>()
  for (const node of nodes) {
    const version = node.firmware ?? 'none stated'
    byVersion.set(version, [...(byVersion.get(version) ?? []), node.name])
  }
  if (byVersion.size < 2) return []
  return [
    found('firmware-differs', nodes[0]?.systemId ?? '', 'soon', 'The nodes do not run the same firmware', {
      evidence: [...byVersion].map(([version, names]) => `${version}: ${list(names)}`).join('; '),
      risk: 'Nodes of one cluster must agree on formats; a mixed row is not what its maker tests.',
      remedy: "Bring all to one version with the maker's own tool.",
      offline: 'Carry the same firmware file to each node.',
    }),
  ]
}
