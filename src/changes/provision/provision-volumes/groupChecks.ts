import type { Estate, System } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { rule } from '../../parts/checks'
import { groupNameChecks } from '../../parts/consistency'

interface Grouped {
  readonly estate: Estate
  /** Empty where they form no group. */
  readonly name: string
  /** Volumes that are to be in it. */
  readonly count: number
  /** From which they come. */
  readonly systems: readonly System[]
}

const mostInGroup = 64

/** That what is to have snapshots of one instant can have them. */
export function groupChecks({ estate, name, count, systems }: Grouped): readonly PlanCheck[] {
  if (name === '') return []
  return [
    ...groupNameChecks(estate, systems[0]?.id, name).map(check => ({
      ...check,
      rule: `group-${check.rule}`,
      field: 'consistencyGroup',
    })),
    rule(
      'group-of-one-system',
      systems.length <= 1 && count >= 2 && count <= mostInGroup,
      'All of them come from one system, which can stop them for one instant.',
      systems.length > 1
        ? 'They would come from several systems: none of them could stop the others for one instant.'
        : `A group has 2 to ${mostInGroup} volumes.`,
      { field: 'consistencyGroup', remedy: 'Put all of them into one pool.' },
    ),
  ]
}
