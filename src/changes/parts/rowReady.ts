import type { Estate, Node } from '@/core/estate'
import { clockToleranceSeconds } from '@/core/findings'
import { failingPaths, storagePort, type PathCell } from '@/core/network'
import type { PlanCheck } from '@/core/plan'
import { advise, must, rule } from './checks'

/** What must hold between nodes before they become one, in the order in which it is looked at: firmware, clocks, network. */
export function rowReady(estate: Estate, systemId: string, nodes: readonly Node[]): PlanCheck[] {
  return [firmwareCheck(nodes), clockCheck(systemId, nodes), ...networkChecks(estate, systemId, nodes)]
}

function firmwareCheck(nodes: readonly Node[]): PlanCheck {
  const versions = [...new Set(nodes.map(node => node.firmware ?? 'none stated'))]
  const alike = versions.length <= 1
  return rule(
    'firmware-alike',
    alike,
    `All nodes run firmware ${versions[0] ?? ''}.`,
    `The nodes run ${versions.join(' and ')}.`,
    {
      remedy: "Bring all to one version with the maker's own tool.",
    },
  )
}

function clockCheck(systemId: string, nodes: readonly Node[]): PlanCheck {
  const off = nodes.filter(node => Math.abs(node.clockOffsetSeconds) > clockToleranceSeconds)
  const [first] = off
  return rule(
    'clocks',
    first === undefined,
    `All clocks are within ${clockToleranceSeconds} s.`,
    off
      .map(
        node =>
          `${node.name} is ${Math.abs(node.clockOffsetSeconds).toFixed(0)} s ${node.clockOffsetSeconds > 0 ? 'ahead' : 'behind'}`,
      )
      .join('; ') + '.',
    {
      remedy: 'Set its clock.',
      ...(first === undefined
        ? {}
        : { href: `/build/network?system=${systemId}&draft=set-node-clock&node=${first.id}` }),
    },
  )
}

function networkChecks(estate: Estate, systemId: string, nodes: readonly Node[]): PlanCheck[] {
  const bare = nodes.filter(node => storagePort(estate.nodePorts, node.id)?.storage == null)
  if (bare.length > 0) {
    return [
      must('network-set', false, `No storage network is set in ${bare.map(node => node.name).join(', ')}.`, {
        remedy: 'Set it before forming a cluster.',
        href: `/build/network?system=${systemId}&draft=set-storage-network`,
      }),
    ]
  }
  return [pathsCheck(estate, systemId, nodes), reservedCheck(estate, nodes)]
}

const nameIn = (nodes: readonly Node[]) => (id: string) => nodes.find(node => node.id === id)?.name ?? ''

/** That every node reaches every other with full frames, as it was last probed. */
function pathsCheck(estate: Estate, systemId: string, nodes: readonly Node[]): PlanCheck {
  const nodeName = nameIn(nodes)
  const probe = estate.pathProbes.find(each => each.systemId === systemId)
  const { nodePorts, switches, switchPorts } = estate
  const { failing, probed } =
    probe === undefined
      ? { failing: [], probed: 0 }
      : failingPaths(nodes, { ports: nodePorts, switches, switchPorts, nodeName }, probe)
  const [first] = failing
  const isWhole = probed === nodes.length * (nodes.length - 1)
  const more = failing.length > 1 ? `, and ${failing.length - 1} more pairs fail` : ''
  return must(
    'paths',
    isWhole && first === undefined,
    first !== undefined
      ? `${nodeName(first.fromNodeId)} does not reach ${nodeName(first.toNodeId)} with full frames${more}: ${first.words}`
      : isWhole
        ? 'Every node reaches every other with full frames.'
        : 'Not all pairs of these nodes have been probed yet.',
    {
      remedy: first?.remedy ?? 'Probe the paths.',
      href: remedyAt(`/build/network?system=${systemId}`, first?.hop, probe?.wantedMtu ?? 9000),
    },
  )
}

/** Where the hop that explains a failing path is set right. */
function remedyAt(page: string, hop: PathCell['hop'], mtu: number): string {
  if (hop === undefined) return page
  return hop.kind === 'switch port'
    ? `${page}&draft=set-switch-port&port=${hop.id}&mtu=${mtu}`
    : `${page}&draft=set-storage-network&mtu=${mtu}`
}

function reservedCheck(estate: Estate, nodes: readonly Node[]): PlanCheck {
  const ids = new Set(nodes.map(node => node.id))
  const nodeName = nameIn(nodes)
  const leased = estate.nodePorts.filter(
    port => ids.has(port.nodeId) && port.storage?.origin === 'leased' && !port.storage.isReserved,
  )
  return advise(
    'reserved',
    leased.length === 0,
    'No address is leased without a reservation.',
    `${leased.map(port => nodeName(port.nodeId)).join(', ')} ${leased.length === 1 ? 'has an address that is' : 'have addresses that are'} leased without a reservation.`,
    { remedy: 'Reserve them, or set them by hand.' },
  )
}
