import type { Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { countAtStart, countWords } from '@/core/units'
import { must } from './checks'

/** That a volume has been chosen and is in use: one in holding is brought back before anything else is done with it. */
export function inUse(volume: Volume | undefined, words: (volume: Volume) => string): PlanCheck {
  if (volume === undefined) return must('volume', false, 'Choose a volume.', { field: 'volumeId' })
  if (volume.mirror?.role === 'target')
    return must('volume', false, `${volume.name} follows the volume of another system that it mirrors.`, {
      field: 'volumeId',
      remedy: 'Choose the volume that it follows, or end the mirror.',
    })
  if (volume.state === 'in use') return must('volume', true, words(volume), { field: 'volumeId' })
  return must('volume', false, `${volume.name} is in holding.`, { field: 'volumeId', remedy: 'Bring it back first.' })
}

/** That all volumes that were chosen are there and in use. @param asked how many were chosen */
export function allInUse(volumes: readonly Volume[], asked: number): PlanCheck {
  const held = volumes.filter(each => each.state !== 'in use')
  const far = volumes.filter(each => each.mirror?.role === 'target')
  const gone = asked - volumes.length
  const why =
    gone > 0
      ? `${gone} of the volumes ${gone === 1 ? 'is' : 'are'} not there any more.`
      : volumes.length === 0
        ? 'Choose the volumes.'
        : held.length > 0
          ? `In holding: ${namedFew(held)}.`
          : far.length > 0
            ? `The far ends of mirrors: ${namedFew(far)}.`
            : `${countAtStart(volumes.length, 'volume is', 'volumes are')} in use.`
  return must('volumes', volumes.length > 0 && gone <= 0 && held.length + far.length === 0, why, {
    field: 'volumeIds',
    remedy: 'Leave those out, or bring them back first.',
  })
}

const shown = 3

/** The names of volumes, the first few of many. */
export const namedFew = (volumes: readonly Volume[]): string =>
  `${volumes
    .slice(0, shown)
    .map(({ name }) => name)
    .join(', ')}${volumes.length > shown ? ` and ${volumes.length - shown} more` : ''}`

/** One by its name, several by how many they are. */
export const namedTogether = ([only, ...others]: readonly Volume[]): string =>
  only !== undefined && others.length === 0
    ? only.name
    : countWords(only === undefined ? 0 : others.length + 1, 'volume', 'volumes')
