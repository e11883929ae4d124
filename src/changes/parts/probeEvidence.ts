import type { ChangePorts } from '@/ports'
import type { Evidence } from '../ChangeKind'
import { probePaths } from './probePaths'

/**
 * Probes all pairs and keeps the answers. What it claims is that they were probed: a path that fails for another reason than this change
 * becomes a finding of its own, with its cause.
 */
export async function probeEvidence(systemId: string, ports: ChangePorts): Promise<Evidence> {
  const estate = await ports.estate()
  const nodes = estate.nodes.filter(node => node.systemId === systemId)
  const probe = await probePaths(systemId, nodes, estate.nodePorts, address => ports.node(address), new Date())
  await ports.records.keepPathProbe(probe)
  const passing = probe.answers.filter(each => (each.passedMtu ?? 0) >= probe.wantedMtu)
  return {
    claim: 'All pairs of nodes were probed with full frames',
    holds: true,
    measured: { pairs: `${probe.answers.length}`, passing: `${passing.length}`, mtu: `${probe.wantedMtu}` },
  }
}
