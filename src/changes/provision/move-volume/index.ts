import { moveVolumeIntent, type MoveVolumeIntent as Intent } from '@/core/intents'
import { one, those, trendsOfPools } from '@/core/estate'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'
import { itsSystem } from '../../parts/known'

/** Moves a volume with its snapshots to another pool of its system, while its hosts go on. */
export const moveVolume: ChangeKind<Intent, Step> = {
  ...moveVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId), those('snapshots', 'volumeId', volumeId), trendsOfPools],
  needsAlso: ({ snapshots }) => [those('volumes', 'cloneOfId', ...snapshots.map(({ id }) => id))],
  plan,
  runStep,
  undoStep,
  prove,
  collects: itsSystem,
  reverse: ({ volumeId, ratePercent }, facts) =>
    facts['fromPoolId'] === undefined
      ? undefined
      : {
          kind: 'move-volume',
          intent: { volumeId, poolId: facts['fromPoolId'], classId: facts['fromClassId'] ?? '', ratePercent },
        },
}
