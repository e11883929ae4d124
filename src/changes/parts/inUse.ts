import type { Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { must } from './checks'

/** That a volume has been chosen and is in use: one in holding is brought back before anything else is done with it. */
export function inUse(volume: Volume | undefined, words: (volume: Volume) => string): PlanCheck {
  if (volume === undefined) return must('volume', false, 'Choose a volume.', { field: 'volumeId' })
  if (volume.state === 'in use') return must('volume', true, words(volume), { field: 'volumeId' })
  return must('volume', false, `${volume.name} is in holding.`, { field: 'volumeId', remedy: 'Bring it back first.' })
}
