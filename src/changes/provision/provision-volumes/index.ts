import { readVolumeLines, those, trendsOfPools } from '@/core/estate'
import { provisionVolumesIntent, type ProvisionVolumesIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'

/** Many volumes in one change: all of them, or none. */
export const provisionVolumes: ChangeKind<Intent, Step> = {
  ...provisionVolumesIntent,
  needs: ({ list, consistencyGroup }) => {
    const names = readVolumeLines(list).volumes.map(({ name }) => name)
    return [
      trendsOfPools,
      those('volumes', 'name', ...names),
      those('snapshots', 'name', ...names),
      those('consistencyGroups', 'name', consistencyGroup),
    ]
  },
  plan,
  runStep,
  undoStep,
  prove,
  collects: () => [],
  reverse: () => undefined,
}
