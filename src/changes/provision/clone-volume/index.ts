import { cloneVolumeIntent, type CloneVolumeIntent as Intent } from '@/core/intents'
import { one, those } from '@/core/estate'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'
import { itsSystem } from '../../parts/known'

export const cloneVolume: ChangeKind<Intent, Step> = {
  ...cloneVolumeIntent,
  needs: ({ volumeId, name }) => [
    one('volumes', volumeId),
    those('snapshots', 'volumeId', volumeId),
    those('volumes', 'name', name),
    those('snapshots', 'name', name),
  ],
  plan,
  runStep,
  undoStep,
  prove,
  collects: itsSystem,
  reverse: (_intent, facts) =>
    facts['cloneId'] === undefined
      ? undefined
      : { kind: 'remove-volume', intent: { volumeId: facts['cloneId'], confirmedName: '' } },
}
