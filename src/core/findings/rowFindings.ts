import {
  eraseDriveIntent,
  setNodeClockIntent,
  setRestartServiceIntent,
  setStorageNetworkIntent,
  setSwitchPortIntent,
} from '../intents'
import { mending } from './mending'
import { byId, intakeState, suffixOf, type Drive, type Estate, type Node, type Pool } from '../estate'
import { nameTrouble, pathMatrix, storagePort, type PathCell } from '../network'
import { countAtStart, formatBytes } from '../units'
import { found } from './found'
import { newerFirmware } from './newerFirmware'
import type { Finding } from './Finding'

/** Clocks further apart than this confuse which write came last (seconds). */
export const clockToleranceSeconds = 5

/** What rows of nodes may hold in one look. */
type Row = Pick<
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

const list = (words: readonly string[], most = 4) =>
  words.length <= most ? words.join(', ') : `${words.slice(0, most).join(', ')} and ${words.length - most} more`

/** Everything that is wrong with a row of nodes and what is built on it; causes are named, the order is `arrange`'s. */
export function rowFindings(row: Row, systemId: string): Finding[] {
  const nodes = row.nodes.filter(node => node.systemId === systemId)
  const drives = row.drives.filter(drive => drive.systemId === systemId)
  const pools = row.pools.filter(pool => pool.systemId === systemId && pool.failureDomain !== null)
  return [
    ...nodes.flatMap(node => nodeFindings(node)),
    ...firmwareFindings(nodes),
    ...newerFirmware(row, systemId),
    ...networkFindings(row, nodes, systemId),
    ...drives.flatMap(drive => driveFindings(drive, byId(nodes, drive.nodeId))),
    ...pools.flatMap(pool => poolFindings(pool, drives, nodes)),
    ...row.volumes
      .filter(volume => volume.systemId === systemId && volume.lostBytes > 0n)
      .map(volume =>
        found('data-lost', volume.id, 'now', `${volume.name} has lost ${formatBytes(volume.lostBytes)}`, {
          evidence: `The cluster states ${volume.lostBytes} bytes that too few pieces are left to read.`,
          risk: 'Reads of them are refused, never answered with wrong bytes. The rest of the volume reads right.',
          remedy: 'Bring back a drive or node that holds lost pieces; else restore these bytes from a copy.',
          offline: 'Do not exchange or erase the lost drives: put them back in their bays first.',
          explainedBy: pools.map(pool => `pool-hurt/${pool.id}`),
        }),
      ),
  ]
}

function nodeFindings(node: Node): Finding[] {
  const findings: Finding[] = []
  if (node.state !== 'fine') {
    findings.push(
      found('node-silent', node.id, 'now', `${node.name} does not answer`, {
        evidence: 'The row states that the node is offline.',
        risk: 'All drives in it are out of reach; what has pieces there is short of them.',
        remedy:
          'See whether it has power and whether it is starting; after ten minutes its pieces are made anew elsewhere.',
        offline: `${node.rack ?? 'No rack is stated'}, ${node.name}: look at its power and its link lights.`,
      }),
    )
  }
  if (Math.abs(node.clockOffsetSeconds) > clockToleranceSeconds) {
    const words = `${Math.abs(node.clockOffsetSeconds).toFixed(0)} s ${node.clockOffsetSeconds > 0 ? 'ahead' : 'behind'}`
    findings.push(
      found('clock-off', node.id, 'soon', `The clock of ${node.name} is ${words}`, {
        evidence: `Its own time less the row's: ${node.clockOffsetSeconds.toFixed(1)} s; up to ${clockToleranceSeconds} s is tolerated.`,
        risk: 'Logs do not line up, certificates may seem invalid, and a cluster refuses the node.',
        remedy: 'Set its clock.',
        draft: mending(setNodeClockIntent, { systemId: node.systemId, nodeId: node.id }),
        offline: 'Set the time in the node itself, and see why it has no time source.',
      }),
    )
  }
  if (!node.isRestartServiceOn && node.state === 'fine') {
    findings.push(
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
      }),
    )
  }
  return findings
}

function firmwareFindings(nodes: readonly Node[]): Finding[] {
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

function networkFindings(row: Row, nodes: readonly Node[], systemId: string): Finding[] {
  const wiring = {
    ports: row.nodePorts,
    switches: row.switches,
    switchPorts: row.switchPorts,
    nodeName: (id: string) => byId(nodes, id)?.name ?? '',
  }
  const probe = row.pathProbes.find(each => each.systemId === systemId)
  const cells = probe === undefined ? [] : pathMatrix(nodes, wiring, probe)
  const failing = cells.filter(cell => cell.verdict !== 'passes')
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
            `${failing.length} of ${cells.length} paths between nodes do not pass full frames`,
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

function driveFindings(drive: Drive, node: Node | undefined): Finding[] {
  const name = `Drive ${suffixOf(drive.serial)}${node === undefined ? '' : ` in ${node.name}, bay ${drive.bay}`}`
  const silent = node === undefined ? [] : [`node-silent/${node.id}`]
  const state = intakeState(drive)
  if (state === 'failed' && node?.state === 'fine') {
    const lost = drive.role === 'cache' ? ` Its whole bank ${drive.bank ?? ''} is lost with it.` : ''
    return [
      found(drive.role === 'cache' ? 'cache-lost' : 'drive-failed', drive.id, 'now', `${name} has failed`, {
        evidence: `The system states it as failed.${lost}`,
        risk: 'What it held is made anew from the other pieces; until then the pool survives less.',
        remedy: 'Nothing has to be done for the data. Exchange the drive.',
        offline: `Serial number ${drive.serial}; its label shows ${suffixOf(drive.serial)}. Switch its light on before pulling it.`,
        explainedBy: silent,
      }),
    ]
  }
  if (state === 'failing') {
    return [
      found('drive-failing', drive.id, 'soon', `${name} is failing`, {
        evidence: 'Its own forecast says so.',
        risk: 'It may fail at any time.',
        remedy: 'Take it out of its bank, then exchange it.',
        offline: `Serial number ${drive.serial}.`,
      }),
    ]
  }
  if (state !== 'foreign' || drive.leftOver === null) return []
  const { system, lastUsedAt, partitions } = drive.leftOver
  const from = system === null ? 'an unknown system' : system
  return [
    found('left-over', drive.id, 'note', `${name} holds what an earlier use has left`, {
      evidence: `${list(partitions)}; from ${from}${lastUsedAt === null ? '' : `, last used ${lastUsedAt.slice(0, 10)}`}.`,
      risk: 'It cannot be taken into a cluster, and what is on it may still be wanted.',
      remedy: 'Make sure that nobody needs it, then erase it.',
      draft: mending(eraseDriveIntent, { systemId: drive.systemId, driveId: drive.id }),
      offline: `If it is wanted, pull ${suffixOf(drive.serial)} and keep it.`,
    }),
  ]
}

function poolFindings(pool: Pool, drives: readonly Drive[], nodes: readonly Node[]): Finding[] {
  if (pool.state === 'fine' || pool.state === 'starting') return []
  const hurt = drives.filter(drive => drive.poolId === pool.id && drive.state === 'failed')
  return [
    found('pool-hurt', pool.id, 'now', `${pool.name} is ${pool.state}`, {
      evidence:
        pool.state === 'failed'
          ? 'More is lost at once than it survives.'
          : `${countAtStart(hurt.length, 'drive', 'drives')} with pieces of it out of reach.`,
      risk:
        pool.state === 'failed'
          ? 'Some of its data cannot be read.'
          : 'It survives less until its pieces are made anew.',
      remedy: 'Its pieces are made anew by themselves where there is room; see what stands above.',
      offline: 'Bring back what is lost, before anything else is pulled.',
      explainedBy: [
        ...nodes.map(node => `node-silent/${node.id}`),
        ...drives
          .filter(drive => drive.state === 'failed')
          .flatMap(drive => [`cache-lost/${drive.id}`, `drive-failed/${drive.id}`]),
      ],
    }),
  ]
}
