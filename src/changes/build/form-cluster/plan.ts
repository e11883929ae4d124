import type { FormClusterIntent as Intent } from '@/core/intents'
import { clusterLayout, metadataRatio, schemeWords, type ClusterLayout, type LayoutWish } from '@/core/clusters'
import { sequentialBytesPerSecond, type Estate, type System } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { BankWanted } from '@/ports'
import { banksAt, clusterChoice, type ClusterChoice } from '../../parts/clusterChoice'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { clusterSketch } from './sketch'
import type { Step } from './steps'
import { checksOf } from './checks'

const layOutShare = 0.8

/** What each node takes over the storage network to become part of the cluster, and the part of the link that it gets. */
const imageBytes = 6_000_000_000n

const imageShare = 0.1

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const choice = clusterChoice(estate, intent.systemId, intent.driveIds, intent.roles)
  const wish: LayoutWish = {
    domain: intent.domain,
    scheme: intent.scheme,
    keepsRebuildReserve: intent.keepsRebuildReserve,
    snapshotShareRatio: intent.snapshotSharePercent / 100,
  }
  const laid = clusterLayout(choice, wish)
  const nodeLocators = choice.nodes.map(node => node.locator)
  const link = Math.min(
    ...estate.nodePorts
      .filter(port => port.storage !== null)
      .map(port => port.speedBitsPerSecond / 8 / (1 + port.traffic.length)),
    10e9,
  )
  const slowest = Math.min(...choice.capacity.map(sequentialBytesPerSecond), 1e10)
  const largest = choice.drives.reduce((most, drive) => (drive.capacityBytes > most ? drive.capacityBytes : most), 0n)
  const banks = banksAt(estate, choice.banks)
  const claims = [...intent.driveIds, ...choice.nodes.map(node => node.id), `cluster:${intent.systemId}`]
  look.at('nodes', choice.nodes)
  look.at('drives', choice.drives)
  look.at(
    'nodePorts',
    estate.nodePorts.filter(port => choice.nodes.some(node => node.id === port.nodeId)),
  )
  return { banks, choice, claims, intent, laid, largest, link, look, nodeLocators, slowest, system, wish }
}

type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent)
  const { choice, claims, laid, look, system, wish } = seen

  return outlined<Step>(estate, {
    title: `Form cluster ${intent.name === '' ? '…' : intent.name} of ${choice.nodes.length} nodes`,
    checks: checksOf(estate, intent, system, choice, laid, now),
    effects: [
      { figure: 'freeBytes', label: 'Free to provision', unit: 'bytes', before: null, after: `${laid.freeBytes}` },
      { figure: 'rawBytes', label: 'Raw, cache included', unit: 'bytes', before: null, after: `${laid.rawBytes}` },
    ],
    oneWay: [
      'Layout and failure domain cannot be changed later; nodes, banks and drives can be added and taken out.',
      'Everything on the chosen drives is overwritten.',
    ],
    undo: {
      possible: true,
      how: 'As long as it holds no volumes its pool can be removed and the cluster dissolved; nodes and drives are free again.',
    },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof:
      'The system is asked again: all chosen nodes are in it, the pool is ready with exactly the planned banks and space, every restart service is on, all pairs pass full frames, and no finding stands that nobody has signed for.',
    sketch: clusterSketch(estate, choice, wish, laid),
    suggestions: { name: suggestedName(estate, system) },
  })
}

function stepsOf({ banks, choice, intent, laid, largest, link, nodeLocators, slowest }: Seen): Outlined<Step>[] {
  return [
    {
      step: { step: 'probe', systemId: intent.systemId, nodeIds: choice.nodes.map(node => node.id) },
      words: 'Probe every path once more',
      seconds: 2,
    },
    {
      step: { step: 'pause-restart', systemId: intent.systemId, nodeLocators },
      words: 'Switch off the restart service while the storage network comes up',
      seconds: 1 + 0.2 * nodeLocators.length,
    },
    {
      step: { step: 'form', systemId: intent.systemId, name: intent.name, nodeLocators },
      words: `Join ${nodeLocators.length} nodes`,
      seconds: 3,
      bytes: imageBytes,
      parts: [{ name: 'network', bytesPerSecond: link * imageShare }],
    },
    layOutStep(intent, choice, banks, laid, largest, slowest),
    {
      step: { step: 'resume-restart', systemId: intent.systemId, nodeLocators },
      words: 'Switch the restart service on again',
      seconds: 1 + 0.2 * nodeLocators.length,
    },
  ]
}

function suggestedName(estate: Estate, system: System | undefined): string {
  if (system === undefined) return ''
  const taken = new Set([
    ...estate.pools.map(pool => pool.name.replace(/-\d+$/, '')),
    ...estate.systems.map(each => each.clusterName),
  ])
  for (let number = 1; ; number += 1) {
    const name = number === 1 ? `${system.name}-cluster` : `${system.name}-cluster-${number}`
    if (!taken.has(name)) return name
  }
}

const layOutStep = (
  intent: Intent,
  choice: ClusterChoice,
  banks: readonly BankWanted[],
  laid: ClusterLayout,
  largest: bigint,
  slowest: number,
): Outlined<Step> => ({
  step: {
    step: 'lay-out',
    systemId: intent.systemId,
    name: `${intent.name}-01`,
    scheme: intent.scheme,
    domain: intent.domain,
    keepsRebuildReserve: intent.keepsRebuildReserve,
    snapshotSharePercent: intent.snapshotSharePercent,
    banks: banks,
    usableBytes: `${laid.usableBytes}`,
  },
  words: `Lay out ${choice.banks.length} banks as ${schemeWords(intent.scheme)}`,
  seconds: 3,
  bytes: BigInt(Math.round(Number(largest) * metadataRatio)),
  parts: choice.capacity.length === 0 ? [] : [{ name: 'drives', bytesPerSecond: slowest * layOutShare }],
})
