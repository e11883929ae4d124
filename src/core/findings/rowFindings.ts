import { eraseDriveIntent } from '../intents'
import { mending } from './mending'
import { byId, intakeState, suffixOf, type Drive, type Node, type Pool } from '../estate'
import { countAtStart, formatBytes } from '../units'
import { found } from './found'
import { newerFirmware } from './newerFirmware'
import type { Finding } from './Finding'
import { nodeFindings, firmwareFindings, list } from './nodeFindings'
import { type Row, networkFindings } from './networkFindings'

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
