import { canBeAsked, type Estate, type Host, type HostGroup, type System, type Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../ChangeKind'
import { beyond } from './beyond'
import { advise, must, rule, there, warn } from './checks'
import { lookFrom, seesIt } from './hostProof'
import type { Outlined } from './outline'
import { askedToProve, asksToProve } from './signIn'
import { statedMapping } from './statedMapping'
import { unmapped } from './unmapped'

export type MapStep = Readonly<{
  step: 'map'
  systemId: string
  volumeLocator: string
  naa: string
  groupName: string
  initiators: readonly string[]
  /** What is in the group on the system besides, of which we know nothing: it stays there. */
  kept: readonly string[]
}>

export const initiatorsOf = (estate: Estate, group: HostGroup | undefined): readonly string[] =>
  estate.hosts.filter(host => host.hostGroupId === group?.id).flatMap(host => host.initiators)

/** That a host group is chosen from which somebody can log in. */
export const groupChecks = (group: HostGroup | undefined, initiators: readonly string[]): readonly PlanCheck[] => [
  there('host-group', group, group => `${group.name} is there.`, 'Choose the host group that shall see it.', {
    field: 'hostGroupId',
  }),
  rule(
    'initiators',
    initiators.length > 0,
    `It has ${initiators.length} initiator${initiators.length === 1 ? '' : 's'}.`,
    'The group has no host with an initiator: nothing could log in.',
    { field: 'hostGroupId' },
  ),
]

/** That a host group can see what is made; without one it is said that nobody will. @param nobody what is said then */
export const mappedCheck = (group: HostGroup | undefined, initiators: readonly string[], nobody: string): PlanCheck =>
  group === undefined
    ? warn('mapped', false, nobody, { field: 'hostGroupId' })
    : rule(
        'initiators',
        initiators.length > 0,
        `${group.name} has ${initiators.length} initiator${initiators.length === 1 ? '' : 's'}.`,
        `${group.name} has no host with an initiator: nothing could log in.`,
        {
          field: 'hostGroupId',
          remedy: 'Configure an initiator on the host and register it anew, or choose another group.',
        },
      )

/** That a host is chosen which sees a volume. */
export const seeingHost = (host: Host | undefined, isSeen: boolean): PlanCheck =>
  must(
    'host',
    host !== undefined && isSeen && host.agentAddress !== null,
    host === undefined
      ? 'Choose the host.'
      : host.agentAddress === null
        ? `${host.name} has no agent that could do it: follow the commands by hand.`
        : isSeen
          ? `${host.name} sees it.`
          : `${host.name} is in no group that it is mapped to.`,
    { field: 'hostId' },
  )

/** Says that several hosts of a group would write to what only one can, where they share no cluster file system. */
export function writersCheck(estate: Estate, group: HostGroup | undefined, what: string): PlanCheck[] {
  const hosts = estate.hosts.filter(host => host.hostGroupId === group?.id && host.initiators.length > 0)
  if (group === undefined || hosts.length === 0) return []
  return [
    advise(
      'one-writer',
      hosts.length === 1,
      `${hosts[0]?.name ?? ''} alone writes to ${what}.`,
      `${hosts.map(({ name }) => name).join(', ')} would all write to ${what}: without a cluster file system they destroy each other's data.`,
      { field: 'hostGroupId', remedy: 'Use a cluster file system, or choose a group of one host.' },
    ),
  ]
}

export const mapStep = (
  estate: Estate,
  system: System,
  volume: Volume,
  group: HostGroup,
  words: string,
): Outlined<MapStep> => ({
  words,
  seconds: 0.6,
  step: {
    step: 'map',
    systemId: system.id,
    volumeLocator: volume.locator,
    naa: volume.naa,
    groupName: group.name,
    initiators: initiatorsOf(estate, group),
    kept: beyond(estate, system, group),
  },
})

export async function map(step: MapStep, key: string, ports: ChangePorts): Promise<Facts> {
  const mappings = await ports.of(step.systemId, 'mappings')
  await askedToProve(ports, step.systemId, step.initiators)
  const mapping = await mappings.make(step.volumeLocator, step.groupName, step.initiators, key)
  return { mappingLocator: mapping.locator, lun: `${mapping.lun}`, naa: step.naa, systemId: step.systemId }
}

export async function unmap(step: MapStep, ports: ChangePorts): Promise<undefined> {
  const mappings = await ports.of(step.systemId, 'mappings')
  const mapping = (await mappings.of(step.volumeLocator)).find(each => each.groupName === step.groupName)
  if (mapping !== undefined) await unmapped(step.volumeLocator, mapping, step.systemId, ports)
  return undefined
}

/** That every host of a group that has an initiator sees a volume. */
export async function groupSees(
  ports: ChangePorts,
  step: MapStep,
  hostGroupId: string,
  sizeBytes: bigint,
): Promise<Evidence[]> {
  const { hosts } = await ports.estate()
  const ofGroup = hosts.filter(host => host.hostGroupId === hostGroupId)
  const proofs = await asksToProve(ports, step.systemId, ofGroup, step.initiators)
  const inGroup = ofGroup.filter(canBeAsked)
  if (inGroup.length === 0)
    return [
      ...proofs,
      await statedMapping(ports, step.systemId, step.volumeLocator, {
        name: step.groupName,
        initiators: step.initiators,
      }),
    ]
  const targets = await (await ports.of(step.systemId, 'mappings')).targets()
  const seen = await Promise.all(
    inGroup.map(async host =>
      seesIt(host, (await lookFrom(ports, host, targets, step.naa)).device, step.naa, sizeBytes),
    ),
  )
  return [...proofs, ...seen]
}
