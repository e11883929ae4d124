import type { Estate, HostGroup, System } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import type { Mappings } from '@/ports'
import type { Evidence } from '../ChangeKind'
import { warn } from './checks'

/** Initiators that a system has in a group of a name and of which no host of ours is known. */
export function beyond(estate: Estate, system: System | undefined, to: HostGroup | undefined): readonly string[] {
  const known = new Set(estate.hosts.flatMap(host => host.initiators))
  const there = system?.accessGroups.find(group => group.name === to?.name)?.initiators ?? []
  return there.filter(initiator => !known.has(initiator))
}

/** Says what stands on the system beyond our knowledge, and that it is kept. */
export const beyondCheck = (
  system: System | undefined,
  group: HostGroup | undefined,
  kept: readonly string[],
): readonly PlanCheck[] =>
  group === undefined || kept.length === 0
    ? []
    : [
        warn(
          'beyond',
          false,
          `On ${system?.name ?? 'the system'}, ${group.name} also has ${kept.slice(0, 3).join(', ')}${kept.length > 3 ? ` and ${kept.length - 3} more` : ''}, of no host that Wendrel knows. What they see, they keep; they will see this volume too.`,
          { remedy: 'Register their hosts, or map to a group of another name.' },
        ),
      ]

/** That what was in a group before, and is not ours, is in it still. */
export async function beyondEvidence(
  mappings: Mappings,
  groupName: string,
  kept: readonly string[],
): Promise<Evidence[]> {
  if (kept.length === 0) return []
  const now = await mappings.initiatorsOf(groupName)
  const lost = kept.filter(initiator => !now.includes(initiator))
  return [
    {
      claim: 'Initiators of hosts that Wendrel does not know are still in the group',
      holds: lost.length === 0,
      measured: { before: `${kept.length}`, lost: lost.join(', ') },
    },
  ]
}
