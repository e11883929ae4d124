import type { ChangePorts } from '@/ports'
import type { Evidence } from '../ChangeKind'
import { probePaths } from './probePaths'

/**
 * Probes all pairs of a row with full frames, keeps the answers, and claims that those which the change is about pass. A path that it
 * is not about becomes a finding of its own where it fails, with its cause.
 * @param nodeIds nodes that the change is about
 * @returns nothing where these nodes have no pair: there is no path yet
 */
export async function probeEvidence(
  systemId: string,
  ports: ChangePorts,
  nodeIds: readonly string[],
): Promise<Evidence[]> {
  const estate = await ports.estate()
  const nodes = estate.nodes.filter(node => node.systemId === systemId)
  const probe = await probePaths(systemId, nodes, estate.nodePorts, address => ports.node(address), new Date())
  await ports.records.keepPathProbe(probe)
  const own = probe.answers.filter(each => nodeIds.includes(each.fromNodeId) || nodeIds.includes(each.toNodeId))
  if (own.length === 0) return []
  const failing = own.filter(each => (each.passedMtu ?? 0) < probe.wantedMtu)
  const nameOf = (id: string) => nodes.find(node => node.id === id)?.name ?? ''
  const [first] = failing
  return [
    {
      claim: 'Full frames pass between all pairs of its nodes',
      holds: failing.length === 0,
      measured: {
        pairs: `${own.length}`,
        passing: `${own.length - failing.length}`,
        mtu: `${probe.wantedMtu}`,
        ...(first === undefined ? {} : { firstFailing: `${nameOf(first.fromNodeId)} to ${nameOf(first.toNodeId)}` }),
      },
    },
  ]
}
