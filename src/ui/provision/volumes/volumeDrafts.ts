import {
  blankIntent,
  formConsistencyGroupIntent,
  limitVolumesIntent,
  mapVolumesIntent,
  scheduleVolumesIntent,
  setApplicationIntent,
  setVolumeClassIntent,
} from '@/core/intents'
import type { VolumeLine } from '@/core/views'
import type { BulkDraft } from '../../drafts/BulkBar'

const most = mapVolumesIntent.intentSchema.properties.volumeIds.maxItems

type ChosenVolume = Pick<VolumeLine, 'id' | 'name' | 'state' | 'missingSince' | 'follows'>

/** What can be drafted for volumes together; a reason in words where nothing can. */
export function volumeDrafts(volumes: readonly ChosenVolume[]): readonly BulkDraft[] | string {
  if (volumes.length === 0) return 'Choose volumes first.'
  if (volumes.length > most) return `At most ${most} at once.`
  const missing = volumes.find(each => each.missingSince !== null)
  if (missing !== undefined) return `${missing.name} is missing at its system.`
  const held = volumes.find(each => each.state !== 'in use')
  if (held !== undefined) return `${held.name} is in holding; bring it back first.`
  const far = volumes.find(({ follows }) => follows)
  if (far !== undefined) return `${far.name} follows a volume of another system.`
  const volumeIds = volumes.map(each => each.id)
  return [
    { words: 'Map to a host group', drafted: mapVolumesIntent, intent: { volumeIds, hostGroupId: '' } },
    { words: 'Put under a class', drafted: setVolumeClassIntent, intent: { volumeIds, classId: '' } },
    {
      words: 'Schedule snapshots',
      drafted: scheduleVolumesIntent,
      intent: { ...blankIntent(scheduleVolumesIntent), volumeIds },
    },
    { words: 'Limit them', drafted: limitVolumesIntent, intent: { ...blankIntent(limitVolumesIntent), volumeIds } },
    { words: 'Say what they serve', drafted: setApplicationIntent, intent: { volumeIds, application: '' } },
    { words: 'Form a consistency group', drafted: formConsistencyGroupIntent, intent: { volumeIds, name: '' } },
  ]
}
