import { demandsOn, one } from '@/core/estate'
import { limitVolumeIntent, limitWords, type LimitVolumeIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import type { Step } from './plan'

export const limitVolume: ChangeKind<Intent, Step> = {
  ...limitVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  needsAlso: ({ volumes }, { volumeId }) => [demandsOn(volumes.find(({ id }) => id === volumeId)?.poolId)],
  plan,
  async runStep({ systemId, locator, naa, from, to }, _context, ports) {
    await (await ports.of(systemId, 'volumes')).limit(locator, naa, to)
    return { systemId, from: JSON.stringify(limitWords(from)) }
  },
  async undoStep({ systemId, locator, naa, from }, _context, ports) {
    await (await ports.of(systemId, 'volumes')).limit(locator, naa, from)
    return undefined
  },
  prove,
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  settles: made => made.steps.map(({ step }) => ({ kind: 'volumes', of: step, fields: ['limits'] })),
  reverse: ({ volumeId }, { from }) =>
    from === undefined
      ? undefined
      : { kind: 'limit-volume', intent: { volumeId, ...(JSON.parse(from) as ReturnType<typeof limitWords>) } },
}
