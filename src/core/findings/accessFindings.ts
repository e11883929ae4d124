import { group } from 'd3-array'
import { alignGroupIntent } from '../intents'
import { countWords } from '../units'
import type { Finding } from './Finding'
import { found } from './found'
import { mending } from './mending'

/** An initiator of a host that a system has in its groups otherwise than the host's group says. */
export interface ApartFromGroup {
  readonly groupId: string
  readonly groupName: string
  readonly hostName: string
  readonly initiator: string
}

const shown = 4
const few = (names: readonly string[]) =>
  `${names.slice(0, shown).join(', ')}${names.length > shown ? ` and ${names.length - shown} more` : ''}`
const hostsIn = (apart: readonly ApartFromGroup[]) => [...new Set(apart.map(({ hostName }) => hostName))]

/** What a system's own groups of initiators have otherwise than the groups that hosts are in. */
export function accessFindings(
  system: { readonly id: string; readonly name: string },
  lacking: readonly ApartFromGroup[],
  others: readonly ApartFromGroup[],
): Finding[] {
  return [
    ...[...group(lacking, each => each.groupId)].map(([groupId, apart]) => lackingFinding(system, groupId, apart)),
    ...[...group(others, each => each.groupId)].map(([groupId, apart]) => othersFinding(system, groupId, apart)),
  ]
}

function lackingFinding(
  { id, name }: { readonly id: string; readonly name: string },
  groupId: string,
  apart: readonly ApartFromGroup[],
): Finding {
  const hosts = hostsIn(apart)
  const groupName = apart[0]?.groupName ?? ''
  return found(
    'group-lacks',
    `${id}/${groupId}`,
    'soon',
    `${name} does not let ${few(hosts)} see what ${groupName} sees`,
    {
      evidence: `${few(apart.map(({ initiator }) => initiator))} ${apart.length === 1 ? 'is' : 'are'} not in its group ${groupName}, in which ${countWords(hosts.length, 'registered host is', 'registered hosts are')}.`,
      risk: 'What should go on there when another host of the group fails finds no disks.',
      remedy: 'Have the group on the system follow its hosts.',
      offline: 'Compare the group on the system’s own console with the hosts that it should have.',
      draft: mending(alignGroupIntent, { systemId: id, hostGroupId: groupId }, { systemId: id, hostGroupId: groupId }),
    },
  )
}

function othersFinding(
  { id, name }: { readonly id: string; readonly name: string },
  groupId: string,
  apart: readonly ApartFromGroup[],
): Finding {
  const groupName = apart[0]?.groupName ?? ''
  return found(
    'group-has-others',
    `${id}/${groupId}`,
    'soon',
    `${name} lets ${few(hostsIn(apart))} see what ${groupName} sees`,
    {
      evidence: `${few(apart.map(({ initiator }) => initiator))} ${apart.length === 1 ? 'is' : 'are'} in its group ${groupName}, and of hosts that are in other groups.`,
      risk: 'Two hosts that do not share a cluster file system destroy each other’s data; and nobody has decided that they may read it.',
      remedy: 'Take them out of the group on the system, or register them in that group.',
      offline: 'Look at the group on the system’s own console, and find out who has put them there.',
    },
  )
}
