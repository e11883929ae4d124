import type { Estate, Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { countAtStart } from '@/core/units'
import { rule, warn } from './checks'

const shownNames = 3
const named = (names: readonly string[]) =>
  `${names.slice(0, shownNames).join(', ')}${names.length > shownNames ? ` and ${names.length - shownNames} more` : ''}`

/** How many clones share, at the start of a sentence. */
export const sharedBy = (clones: readonly unknown[]) => countAtStart(clones.length, 'clone shares', 'clones share')

/** That nothing needs a volume's snapshots, so that they can go with it: no clone, no hold, no host that is shown one. */
export function heldBack(estate: Estate, volume: Volume | undefined): PlanCheck[] {
  const own = estate.snapshots.filter(each => each.volumeId === volume?.id)
  if (volume === undefined || own.length === 0) return []
  const clones = estate.volumes.filter(each => own.some(({ id }) => id === each.cloneOfId))
  const held = own.filter(({ heldReason }) => heldReason !== null)
  const shown = estate.mappings.filter(each => own.some(({ id }) => id === each.snapshotId))
  return [
    rule(
      'no-clone',
      clones.length === 0,
      'No clone shares with it.',
      `${sharedBy(clones)} with its snapshots: ${named(clones.map(({ name }) => name))}.`,
      { remedy: 'Split the clones first, or remove them.' },
    ),
    rule(
      'no-hold',
      held.length === 0,
      'None of its snapshots is held.',
      `${named(held.map(({ name, heldReason }) => `${name} (${heldReason ?? ''})`))} must stay.`,
      { remedy: 'Release it first.' },
    ),
    rule(
      'not-shown',
      shown.length === 0,
      'None of its snapshots is shown to anybody.',
      `${named(shown.map(({ groupName }) => groupName))} ${shown.length === 1 ? 'is' : 'are'} shown one of its snapshots.`,
      { remedy: 'Take it from them first.' },
    ),
  ]
}

/** Says that a volume's snapshots go with it. */
export function snapshotsGo(estate: Estate, volume: Volume | undefined): PlanCheck[] {
  const count = estate.snapshots.filter(each => each.volumeId === volume?.id).length
  return count === 0
    ? []
    : [
        warn(
          'snapshots',
          false,
          `${countAtStart(count, 'snapshot goes', 'snapshots go')} with it, when its time in holding is over.`,
        ),
      ]
}
