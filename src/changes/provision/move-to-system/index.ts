import { moveToSystemIntent, type MoveToSystemIntent as Intent } from '@/core/intents'
import { beginning, byId, one, those } from '@/core/estate'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { runStep, type Step } from './steps'
import { undoStep } from './undo'

/** Moves a volume to another system while its hosts go on: mirrored there, compared, switched; what it was stays in holding. */
export const moveToSystem: ChangeKind<Intent, Step> = {
  ...moveToSystemIntent,
  needs: ({ volumeId }) => [
    one('volumes', volumeId),
    those('snapshots', 'volumeId', volumeId),
    those('shares', 'volumeId', volumeId),
    those('fileSystems', 'volumeId', volumeId),
  ],
  // Names of earlier moves are taken, on whichever of its systems they stand.
  needsAlso: ({ volumes }, { volumeId }) => {
    const name = byId(volumes, volumeId)?.name
    return name === undefined ? undefined : [beginning('snapshots', `${name}.`), beginning('volumes', `${name}.`)]
  },
  plan,
  runStep,
  undoStep,
  prove,
  collects: (_intent, _estate, { systemId, toSystemId }) => [systemId, toSystemId].filter(each => each !== undefined),
  reverse: ({ volumeId, ratePercent }, { fromPoolId }) =>
    fromPoolId === undefined
      ? undefined
      : { kind: 'move-to-system', intent: { volumeId, poolId: fromPoolId, ratePercent } },
}
