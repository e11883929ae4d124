import { provisionVolumeIntent, type ProvisionVolumeIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { needs, needsAlso, plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'

export const provisionVolume: ChangeKind<Intent, Step> = {
  ...provisionVolumeIntent,
  needs,
  needsAlso,
  plan,
  runStep,
  undoStep,
  prove,
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  reverse: (_intent, facts) =>
    facts['volumeId'] === undefined
      ? undefined
      : { kind: 'remove-volume', intent: { volumeId: facts['volumeId'], confirmedName: '' } },
}
