import type { SetStorageNetworkIntent as Intent } from '@/core/intents'
import { byId, type Estate, type NodePort } from '@/core/estate'
import { inOneSubnet, nameTrouble, plainAddress, type Subnetted } from '@/core/network'
import type { PlanCheck } from '@/core/plan'
import { advise, must, rule, warn } from '../../parts/checks'

const leastMtu = 1280

const mostMtu = 9216

export const familyOf = ({ origin, family }: Intent, address: Subnetted | undefined) =>
  (origin === 'leased' ? family : address?.family) ?? 'IPv4'

export const setNodes = (estate: Estate, more: readonly string[] = []) =>
  new Set([...estate.nodePorts.filter(port => port.storage !== null).map(port => port.nodeId), ...more]).size

export function commonMtu(ports: readonly (NodePort | undefined)[]): number | null {
  const all = new Set(ports.flatMap(port => (port === undefined ? [] : [port.mtu])))
  return all.size === 1 ? ([...all][0] ?? null) : null
}

export function portsCheck(intent: Intent, ports: readonly (NodePort | undefined)[]): PlanCheck {
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

export const mtuCheck = (mtu: number) =>
  rule('mtu', mtu >= leastMtu && mtu <= mostMtu, `MTU ${mtu}.`, `An MTU is ${leastMtu} to ${mostMtu} bytes.`, {
    field: 'mtu',
    remedy: 'Large frames are 9000.',
  })

export function vlanCheck(vlan: number | null): PlanCheck {
  const holds = vlan === null || (vlan >= 1 && vlan <= 4094)
  return rule('vlan', holds, vlan === null ? 'Untagged.' : `VLAN ${vlan}.`, 'A VLAN is 1 to 4094.', {
    field: 'vlan',
  })
}

export function addressChecks(estate: Estate, intent: Intent, read: readonly (Subnetted | undefined)[]): PlanCheck[] {
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

export const leaseCheck = () =>
  warn(
    'lease',
    false,
    'A leased address can be another after the next lease, and the node would be lost to its cluster.',
    {
      field: 'origin',
      remedy: 'Reserve each address where it is leased, or set them by hand.',
    },
  )

export function namesCheck(estate: Estate, intent: Intent, read: readonly (Subnetted | undefined)[]): PlanCheck {
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

export function farEndCheck(estate: Estate, intent: Intent, ports: readonly (NodePort | undefined)[]): PlanCheck {
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

export const shareCheck = (ports: readonly (NodePort | undefined)[], share: number) => {
  const others = [...new Set(ports.flatMap(port => port?.traffic ?? []))]
  return advise(
    'own-port',
    others.length === 0,
    'The ports carry storage alone.',
    `Storage shares ports with ${others.join(' and ')}: when all are busy it gets ${(share * 100).toFixed(0)}% of them.`,
    { field: 'nodes', remedy: 'Choose ports of their own.' },
  )
}
