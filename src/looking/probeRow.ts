import { probePaths } from '@/changes'
import { nodeAgent } from '@/connectors/node'
import type { PathProbe } from '@/core/estate'
import { settings, type Scope } from '@/records'
import { keepPathProbe } from '@/records/inventory'
import { rowNetwork } from '@/records/queries'

/** Probes the paths between the nodes of a system now, and keeps what was found. */
export async function probeRow(scope: Scope, systemId: string, stop: AbortSignal): Promise<PathProbe> {
  const { addresses: allowedNetworks } = await settings(scope)
  const { nodes, nodePorts } = await rowNetwork(scope, systemId)
  const probe = await probePaths(
    systemId,
    nodes,
    nodePorts,
    async address => nodeAgent(address, stop, allowedNetworks),
    new Date(),
  )
  await keepPathProbe(scope, probe)
  return probe
}
