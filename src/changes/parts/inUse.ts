import type { Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import { must, rule } from './checks'

/** That a volume has been chosen and is in use: one in holding is brought back before anything else is done with it. */
export function inUse(volume: Volume | undefined, words: (volume: Volume) => string): PlanCheck {
  if (volume === undefined) return must('volume', false, 'Choose a volume.', { field: 'volumeId' })
  if (volume.state === 'in use') return must('volume', true, words(volume), { field: 'volumeId' })
  return must('volume', false, `${volume.name} is in holding.`, { field: 'volumeId', remedy: 'Bring it back first.' })
}

/** That all volumes that were chosen are there and in use. @param asked how many were chosen */
export const allInUse = (volumes: readonly Volume[], asked: number): PlanCheck =>
  rule(
    'volumes',
    volumes.length > 0 && volumes.length === asked && volumes.every(each => each.state === 'in use'),
    'All of them are in use.',
    volumes.length === 0 ? 'Choose the volumes.' : 'Some of them are in holding, or not there any more.',
  )

/** One by its name, several by how many they are. */
export const namedTogether = ([only, ...others]: readonly Volume[]): string =>
  only !== undefined && others.length === 0
    ? only.name
    : countWords(only === undefined ? 0 : others.length + 1, 'volume', 'volumes')
