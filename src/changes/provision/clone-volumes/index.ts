import { cloneVolumesIntent, type CloneVolumesIntent as Intent } from '@/core/intents'
import { one, those } from '@/core/estate'
import type { ChangeKind } from '../../ChangeKind'
import { namesAsked, plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'
import { itsSystem } from '../../parts/known'

export const cloneVolumes: ChangeKind<Intent, Step> = {
  ...cloneVolumesIntent,
  needs: intent => {
    const names = namesAsked(intent)
    return [
      one('volumes', intent.volumeId),
      those('snapshots', 'volumeId', intent.volumeId),
      ...(typeof names === 'string' ? [] : [those('volumes', 'name', ...names), those('snapshots', 'name', ...names)]),
    ]
  },
  plan,
  runStep,
  undoStep,
  prove,
  collects: itsSystem,
  reverse: () => undefined,
}
