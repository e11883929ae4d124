import { setStorageNetworkIntent, setSwitchPortIntent } from '../intents'
import { mending } from './mending'
import { byId, type Estate, type Node } from '../estate'
import { failingPaths, nameTrouble, storagePort, type PathCell } from '../network'
import { countAtStart } from '../units'
import { found } from './found'
import type { Finding } from './Finding'
import { list } from './nodeFindings'

/** What rows of nodes may hold in one look. */
export type Row = Pick<
  Estate,
  | 'nodes'
  | 'nodePorts'
  | 'switches'
  | 'switchPorts'
  | 'drives'
  | 'pools'
  | 'volumes'
  | 'pathProbes'
  | 'nameAnswers'
  | 'catalogues'
>

export function networkFindings(row: Row, nodes: readonly Node[], systemId: string): Finding[] {
  const wiring = {
    ports: row.nodePorts,
    switches: row.switches,
    switchPorts: row.switchPorts,
    nodeName: (id: string) => byId(nodes, id)?.name ?? '',
  }
  const probe = row.pathProbes.find(each => each.systemId === systemId)
  const { failing, probed } = probe === undefined ? { failing: [], probed: 0 } : failingPaths(nodes, wiring, probe)
  const byHop = new Map<string, PathCell[]>()
  for (const cell of failing)
    if (cell.hop !== undefined) byHop.set(cell.hop.id, [...(byHop.get(cell.hop.id) ?? []), cell])
  const causes = [...byHop.values()].map(cellsOfHop => hopFinding(cellsOfHop, probe?.wantedMtu ?? 0, systemId))
  const silent = nodes.filter(node => node.state !== 'fine').map(node => `node-silent/${node.id}`)
  const paths =
    failing.length === 0
      ? []
      : [
          found(
            'paths',
            systemId,
            'now',
            `${failing.length} of ${probed} paths between nodes do not pass full frames`,
            {
              evidence: `Probed at ${probe?.at ?? ''} with ${probe?.wantedMtu ?? 0} bytes: ${list(
                failing.map(
                  cell => `${wiring.nodeName(cell.fromNodeId)} → ${wiring.nodeName(cell.toNodeId)}: ${cell.verdict}`,
                ),
              )}.`,
              risk: 'Nodes that do not reach each other at full size stall under load, or split the cluster.',
              remedy: 'Mend what stands above; then probe again.',
              offline: 'Follow the cable of the named port.',
              explainedBy: [...causes.map(cause => cause.key), ...silent],
            },
          ),
        ]
  return [...causes, ...paths, ...nodes.flatMap(node => addressFindings(row, node))]
}

function hopFinding(cells: readonly PathCell[], wantedMtu: number, systemId: string): Finding {
  const { hop, verdict, words, remedy } = cells[0] ?? { hop: undefined, verdict: 'no answer', words: '', remedy: '' }
  const isSwitch = hop?.kind === 'switch port'
  const leastMtu = Math.max(wantedMtu, hop?.mtu ?? 0)
  const draft =
    hop === undefined || verdict === 'link down'
      ? null
      : isSwitch
        ? mending(setSwitchPortIntent, { systemId, switchPortId: hop.id, mtu: leastMtu }, { mtu: leastMtu })
        : mending(setStorageNetworkIntent, { systemId }, { mtu: wantedMtu })
  return found(
    verdict === 'smaller MTU' ? 'mtu' : verdict === 'wrong VLAN' ? 'vlan' : 'link',
    hop?.id ?? systemId,
    'now',
    words,
    {
      evidence: `${countAtStart(cells.length, 'path fails', 'paths fail')} there; it is the first port on the way whose settings explain it.`,
      risk: 'Every path through it is cut short.',
      remedy,
      draft,
      offline: `Find ${hop?.words ?? 'the port'} by its label and set it at the ${isSwitch ? 'switch' : 'node'} itself.`,
    },
  )
}

function addressFindings(row: Row, node: Node): Finding[] {
  const storage = storagePort(row.nodePorts, node.id)?.storage
  if (storage === undefined || storage === null) return []
  const findings: Finding[] = []
  if (storage.origin === 'leased' && !storage.isReserved) {
    findings.push(
      found('lease', node.id, 'soon', `${node.name} has a leased address without a reservation`, {
        evidence: `${storage.address ?? 'Its address'} may be another after the next lease.`,
        risk: 'The node would vanish from the cluster when its address changes.',
        remedy: 'Reserve the address, or set it by hand.',
        draft: mending(setStorageNetworkIntent, { systemId: node.systemId }),
        offline: 'Reserve it where addresses are leased.',
      }),
    )
  }
  const trouble =
    node.hostName === null || storage.address === null
      ? null
      : nameTrouble(node.hostName, storage.address, row.nameAnswers)
  if (typeof trouble === 'string') {
    findings.push(
      found('name', node.id, 'soon', trouble, {
        evidence: 'Asked of the name server, forward and reverse.',
        risk: 'Whoever comes by name reaches another machine, or none.',
        remedy: 'Correct the record, or the address.',
        offline: 'Ask whoever keeps the zone.',
      }),
    )
  }
  return findings
}
