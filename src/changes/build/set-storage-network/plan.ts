import type { SetStorageNetworkIntent as Intent } from '@/core/intents'
import { byId, type Estate, type NodePort, type StorageInterface } from '@/core/estate'
import {
  consecutiveAddresses,
  inOneSubnet,
  nameTrouble,
  plainAddress,
  readAddress,
  storageShare,
  type Subnetted,
} from '@/core/network'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { advise, must, rule, warn } from '../../parts/checks'
import { nodesAnswer, nodesOf, rowChecks } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import type { Step } from './steps'

const leastMtu = 1280
const mostMtu = 9216

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

const familyOf = ({ origin, family }: Intent, address: Subnetted | undefined) =>
  (origin === 'leased' ? family : address?.family) ?? 'IPv4'

const storageOf = (intent: Intent, address: Subnetted | undefined): Omit<StorageInterface, 'isReserved'> => ({
  family: familyOf(intent, address),
  address: intent.origin === 'leased' ? null : (address?.address ?? null),
  prefixLength: address?.prefixLength ?? (familyOf(intent, address) === 'IPv4' ? 24 : 64),
  origin: intent.origin,
  vlan: intent.vlan,
})

/** Addresses that follow the first one, for the fields that are still empty. */
function suggestedAddresses(intent: Intent): Readonly<Record<string, string>> {
  const first = readAddress(intent.nodes[0]?.address ?? '')
  if (first === undefined || intent.origin !== 'static') return {}
  const all = consecutiveAddresses(first, intent.nodes.length)
  if (all === undefined) return {}
  return Object.fromEntries(
    intent.nodes.map((each, index) => [each.nodeId, `${all[index] ?? ''}/${first.prefixLength}`]),
  )
}

const setNodes = (estate: Estate, more: readonly string[] = []) =>
  new Set([...estate.nodePorts.filter(port => port.storage !== null).map(port => port.nodeId), ...more]).size

function commonMtu(ports: readonly (NodePort | undefined)[]): number | null {
  const all = new Set(ports.flatMap(port => (port === undefined ? [] : [port.mtu])))
  return all.size === 1 ? ([...all][0] ?? null) : null
}

function portsCheck(intent: Intent, ports: readonly (NodePort | undefined)[]): PlanCheck {
  const strange = intent.nodes.some((each, index) => ports[index]?.nodeId !== each.nodeId)
  const down = ports.filter(port => port?.isUp === false).length
  return must(
    'ports',
    !strange && down === 0,
    strange
      ? 'A chosen port is not one of its node.'
      : down > 0
        ? `${down} of the chosen ports ${down === 1 ? 'is' : 'are'} down.`
        : 'Each node has a port that is up.',
    { field: 'nodes', remedy: 'Choose other ports, or look at the cables.' },
  )
}

const mtuCheck = (mtu: number) =>
  rule('mtu', mtu >= leastMtu && mtu <= mostMtu, `MTU ${mtu}.`, `An MTU is ${leastMtu} to ${mostMtu} bytes.`, {
    field: 'mtu',
    remedy: 'Large frames are 9000.',
  })

function vlanCheck(vlan: number | null): PlanCheck {
  const holds = vlan === null || (vlan >= 1 && vlan <= 4094)
  return rule('vlan', holds, vlan === null ? 'Untagged.' : `VLAN ${vlan}.`, 'A VLAN is 1 to 4094.', {
    field: 'vlan',
  })
}

function addressChecks(estate: Estate, intent: Intent, read: readonly (Subnetted | undefined)[]): PlanCheck[] {
  const unreadable = intent.nodes.filter((_, index) => read[index] === undefined)
  const nameOf = (nodeId: string) => byId(estate.nodes, nodeId)?.name ?? 'a node'
  const known = read.flatMap(each => each ?? [])
  const twice = known.find((each, index) => known.findIndex(other => other.address === each.address) !== index)
  const chosen = new Set(intent.nodes.map(each => each.nodeId))
  const others = estate.nodePorts.filter(port => port.storage?.address != null && !chosen.has(port.nodeId))
  const taken = others.find(port => known.some(each => each.address === plainAddress(port.storage?.address ?? '')))
  const whole = [
    ...known,
    ...others.flatMap(port =>
      port.storage?.address == null ? [] : [{ ...port.storage, address: port.storage.address }],
    ),
  ]
  const isOne = inOneSubnet(whole)
  return [
    rule(
      'addresses',
      unreadable.length === 0,
      'All addresses can be read.',
      `${unreadable.map(each => `${nameOf(each.nodeId)}: "${each.address}"`).join(', ')} ${unreadable.length === 1 ? 'is' : 'are'} no address with a subnet.`,
      { field: 'nodes', remedy: 'Write it as 10.20.30.11/24 or fd00:20::11/64.' },
    ),
    must(
      'addresses-distinct',
      twice === undefined && taken === undefined,
      twice !== undefined
        ? `Two nodes would have ${twice.address}.`
        : taken !== undefined
          ? `${taken.storage?.address ?? ''} is ${nameOf(taken.nodeId)}'s.`
          : 'Each node has an address of its own.',
      { field: 'nodes', remedy: 'Give each node another address.' },
    ),
    rule('one-subnet', isOne, 'All are in one subnet.', 'The addresses are not all in one subnet.', {
      field: 'nodes',
      remedy: 'Storage nodes speak to each other without a router.',
    }),
  ]
}

const leaseCheck = () =>
  warn(
    'lease',
    false,
    'A leased address can be another after the next lease, and the node would be lost to its cluster.',
    {
      field: 'origin',
      remedy: 'Reserve each address where it is leased, or set them by hand.',
    },
  )

function namesCheck(estate: Estate, intent: Intent, read: readonly (Subnetted | undefined)[]): PlanCheck {
  const troubles = intent.nodes.map((each, index) => {
    const hostName = byId(estate.nodes, each.nodeId)?.hostName
    const address = read[index]?.address
    return hostName == null || address === undefined ? null : nameTrouble(hostName, address, estate.nameAnswers)
  })
  const said = troubles.filter(each => typeof each === 'string')
  const isUnknown = said.length === 0 && troubles.some(each => each === null)
  return warn(
    'names',
    said.length === 0 && !isUnknown,
    said.length > 0
      ? said.join(' ')
      : isUnknown
        ? estate.settings.nameServer === ''
          ? 'No name server is set, so names cannot be compared.'
          : 'The names have not been looked up yet.'
        : 'Names and addresses lead to each other.',
    { field: 'nodes', remedy: said.length > 0 ? 'Correct the records, or the addresses.' : 'Look them up.' },
  )
}

function farEndCheck(estate: Estate, intent: Intent, ports: readonly (NodePort | undefined)[]): PlanCheck {
  const nameOf = (id: string) => byId(estate.switches, id)?.name ?? 'switch'
  const troubles = ports.flatMap(port => {
    const far = byId(estate.switchPorts, port?.switchPortId)
    if (far === undefined) return []
    const where = `${nameOf(far.switchId)} port ${far.name}`
    if (far.mtu < intent.mtu) return [{ id: far.id, words: `${where} lets only ${far.mtu} bytes through.` }]
    if (intent.vlan !== null && !far.vlans.includes(intent.vlan))
      return [{ id: far.id, words: `${where} does not carry VLAN ${intent.vlan}.` }]
    return []
  })
  const [first] = troubles
  return advise(
    'far-ends',
    first === undefined,
    'The switch ports let these frames through.',
    troubles.map(each => each.words).join(' '),
    {
      remedy: 'Set the switch port too.',
      ...(first === undefined
        ? {}
        : {
            href: `/build/network?system=${intent.systemId}&draft=set-switch-port&port=${first.id}&mtu=${intent.mtu}`,
          }),
    },
  )
}

const shareCheck = (ports: readonly (NodePort | undefined)[], share: number) => {
  const others = [...new Set(ports.flatMap(port => port?.traffic ?? []))]
  return advise(
    'own-port',
    others.length === 0,
    'The ports carry storage alone.',
    `Storage shares ports with ${others.join(' and ')}: when all are busy it gets ${(share * 100).toFixed(0)}% of them.`,
    { field: 'nodes', remedy: 'Choose ports of their own.' },
  )
}
