import { demandsOn, one } from '@/core/estate'
import { limitVolumeIntent, limitWords, type LimitVolumeIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { firstStep, itsSystem } from '../../parts/known'
import { statesLimit, triesMore } from '../../parts/limitProof'
import { resetLimit, setLimit, type LimitStep } from '../../parts/limits'
import { plan } from './plan'

export const limitVolume: ChangeKind<Intent, LimitStep> = {
  ...limitVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  needsAlso: ({ volumes }, { volumeId }) => [demandsOn(volumes.find(({ id }) => id === volumeId)?.poolId)],
  plan,
  runStep: async (step, _context, ports) => ({
    ...(await setLimit(step, ports)),
    from: JSON.stringify(limitWords(step.from)),
  }),
  undoStep: (step, _context, ports) => resetLimit(step, ports),
  async prove({ volumeId }, made, _facts, ports) {
    const step = firstStep(made)
    const stated = await statesLimit(step, 'the volume of this WWN', ports)
    return [stated, ...(await triesMore(step, volumeId, await ports.estate(), ports))]
  },
  collects: itsSystem,
  settles: made => made.steps.map(({ step }) => ({ kind: 'volumes', of: step, fields: ['limits'] })),
  reverse: ({ volumeId }, { from }) =>
    from === undefined
      ? undefined
      : { kind: 'limit-volume', intent: { volumeId, ...(JSON.parse(from) as ReturnType<typeof limitWords>) } },
}
