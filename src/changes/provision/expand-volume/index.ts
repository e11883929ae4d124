import { expandVolumeIntent, type ExpandVolumeIntent as Intent } from '@/core/intents'
import { one } from '@/core/estate'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'
import { itsSystem } from '../../parts/known'

export const expandVolume: ChangeKind<Intent, Step> = {
  ...expandVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  runStep,
  undoStep,
  prove,
  collects: itsSystem,
  reverse: () => undefined,
}
