import { refusalOf } from '@/core/errors'
import type { Node, NodePort, PathProbe } from '@/core/estate'
import { storagePort } from '@/core/network'
import type { NodeAgent } from '@/ports'

/**
 * Probes all pairs of a row's nodes at full frame size: every node asks all others at once, through its own agent. A node whose agent
 * does not answer counts as one that no packet leaves.
 * @param at the time that the answers bear
 */
export async function probePaths(
  systemId: string,
  nodes: readonly Node[],
  ports: readonly NodePort[],
  agentOf: (address: string) => Promise<NodeAgent>,
  at: Date,
): Promise<PathProbe> {
  const set = nodes.flatMap(node => {
    const port = storagePort(ports, node.id)
    const address = port?.storage?.address ?? null
    return port === undefined || address === null ? [] : [{ node, address, mtu: port.mtu }]
  })
  const wantedMtu = Math.max(0, ...set.map(each => each.mtu))
  const answers = await Promise.all(
    set.map(async from => {
      const others = set.filter(to => to.node.id !== from.node.id)
      const seen = await probed(
        from.node,
        others.map(to => to.address),
        wantedMtu,
        agentOf,
      )
      return others.map(to => ({
        fromNodeId: from.node.id,
        toNodeId: to.node.id,
        passedMtu: typeof seen === 'string' ? null : (seen.get(to.address) ?? null),
        why: typeof seen === 'string' ? seen : null,
      }))
    }),
  )
  return { systemId, at: at.toISOString(), wantedMtu, answers: answers.flat() }
}

async function probed(
  node: Node,
  addresses: readonly string[],
  mtu: number,
  agentOf: (address: string) => Promise<NodeAgent>,
): Promise<ReadonlyMap<string, number | null> | string> {
  if (addresses.length === 0) return new Map()
  if (node.agentAddress === null) return `${node.name} names no agent that could probe.`
  try {
    const found = await (await agentOf(node.agentAddress)).probe(addresses, mtu)
    return new Map(found.map(each => [each.address, each.passedMtu]))
  } catch (cause) {
    // A probe that was given up says nothing of the node: half an answer must not be kept.
    if (!refusalOf(cause).code.startsWith('connection.')) throw cause
    // Not an error of the probe but its answer: from here nothing gets anywhere.
    return `${node.name} does not answer.`
  }
}
