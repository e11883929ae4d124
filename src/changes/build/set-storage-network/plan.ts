import type { SetStorageNetworkIntent as Intent } from '@/core/intents'
import { byId, type Estate, type StorageInterface } from '@/core/estate'
import { consecutiveAddresses, readAddress, storageShare, type Subnetted } from '@/core/network'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { rule } from '../../parts/checks'
import { nodesAnswer, nodesOf, rowChecks } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import type { Step } from './steps'
import {
  portsCheck,
  mtuCheck,
  vlanCheck,
  addressChecks,
  leaseCheck,
  namesCheck,
  farEndCheck,
  shareCheck,
  commonMtu,
  setNodes,
  familyOf,
} from './checks'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const nodes = nodesOf(
    estate,
    intent.nodes.map(each => each.nodeId),
  )
  const ports = intent.nodes.map(each => byId(estate.nodePorts, each.portId))
  const read = intent.nodes.map(each => readAddress(each.address))
  const isStatic = intent.origin === 'static'
  const wanted = intent.nodes.flatMap((each, index) => {
    const port = ports[index]
    const address = read[index]
    return port === undefined ? [] : [{ each, port, storage: storageOf(intent, address), address }]
  })
  const restarting = nodes.filter(node => node.isRestartServiceOn).map(node => node.locator)
  const share = Math.min(1, ...ports.map(port => (port === undefined ? 1 : storageShare(port.traffic))))
  look.at('nodes', nodes)
  look.at(
    'nodePorts',
    ports.filter(port => port !== undefined),
  )
  return { estate, intent, isStatic, look, nodes, ports, read, restarting, share, system, wanted }
}

type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, nodes, system } = seen

  return outlined<Step>(estate, {
    title: `Set the storage network of ${nodes.length === 1 ? (nodes[0]?.name ?? '') : `${nodes.length} nodes`}${system === undefined ? '' : ` of ${system.name}`}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    undo: { possible: true, how: 'The ports can be set back to what they are now.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: nodes.map(node => node.id),
    proof: 'Each port is read again, and all pairs of nodes are probed with full frames that may not be cut.',
    suggestions: suggestedAddresses(intent),
  })
}

function checksOf({ estate, intent, isStatic, nodes, ports, read, share, system }: Seen): readonly PlanCheck[] {
  return [
    ...rowChecks(system, estate.nodes),
    rule('nodes', nodes.length > 0, `${nodes.length} nodes.`, 'No node is chosen yet.', {
      field: 'nodes',
    }),
    nodesAnswer(nodes),
    portsCheck(intent, ports),
    mtuCheck(intent.mtu),
    vlanCheck(intent.vlan),
    ...(isStatic ? addressChecks(estate, intent, read) : [leaseCheck()]),
    ...(isStatic ? [namesCheck(estate, intent, read)] : []),
    farEndCheck(estate, intent, ports),
    shareCheck(ports, share),
  ]
}

function effectsOf({ estate, intent, ports, share, wanted }: Seen): readonly Effect[] {
  return [
    {
      figure: 'share',
      label: 'Least part of a port for storage, all busy',
      unit: 'ratio',
      before: null,
      after: share,
    },
    { figure: 'mtu', label: 'MTU', unit: 'count', before: commonMtu(ports), after: intent.mtu },
    {
      figure: 'set',
      label: 'Nodes with a storage network',
      unit: 'count',
      before: setNodes(estate),
      after: setNodes(
        estate,
        wanted.map(({ port }) => port.nodeId),
      ),
    },
  ]
}

function stepsOf({ intent, restarting, wanted }: Seen): Outlined<Step>[] {
  return [
    {
      step: { step: 'pause-restart', systemId: intent.systemId, nodeLocators: restarting },
      words: 'Switch off the restart service, which would take the pause for a fault',
      seconds: 0.3 + 0.05 * restarting.length,
    },
    {
      step: {
        step: 'set',
        systemId: intent.systemId,
        ports: wanted.map(({ port, storage }) => ({
          locator: port.locator,
          mtu: intent.mtu,
          storage,
          before: { mtu: port.mtu, storage: port.storage },
        })),
      },
      words: `Set ${wanted.length === 1 ? 'the port' : `${wanted.length} ports`}`,
      seconds: 0.3 + 0.1 * wanted.length,
    },
    {
      step: { step: 'resume-restart', systemId: intent.systemId, nodeLocators: restarting },
      words: 'Switch the restart service on again',
      seconds: 0.3 + 0.05 * restarting.length,
    },
  ]
}

const storageOf = (intent: Intent, address: Subnetted | undefined): Omit<StorageInterface, 'isReserved'> => ({
  family: familyOf(intent, address),
  address: intent.origin === 'leased' ? null : (address?.address ?? null),
  prefixLength: address?.prefixLength ?? (familyOf(intent, address) === 'IPv4' ? 24 : 64),
  origin: intent.origin,
  vlan: intent.vlan,
})

/** Addresses that follow the first one, for the fields that are still empty. */
function suggestedAddresses(intent: Intent): Readonly<Record<string, string>> {
  const [node] = intent.nodes
  const first = node === undefined ? undefined : readAddress(node.address)
  if (first === undefined || intent.origin !== 'static') return {}
  const all = consecutiveAddresses(first, intent.nodes.length)
  if (all === undefined) return {}
  return Object.fromEntries(
    all.flatMap((address, index) => {
      const each = intent.nodes[index]
      return each === undefined ? [] : [[each.nodeId, `${address}/${first.prefixLength}`] as const]
    }),
  )
}
