import { provisionVolumeIntent, type ProvisionVolumeIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { needs, needsAlso, plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'
import { itsSystem } from '../../parts/known'

export const provisionVolume: ChangeKind<Intent, Step> = {
  ...provisionVolumeIntent,
  needs,
  needsAlso,
  plan,
  runStep,
  undoStep,
  prove,
  collects: itsSystem,
  reverse: (_intent, facts) =>
    facts['volumeId'] === undefined
      ? undefined
      : { kind: 'remove-volume', intent: { volumeId: facts['volumeId'], confirmedName: '' } },
}
