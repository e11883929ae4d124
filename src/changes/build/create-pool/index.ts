import { createPoolIntent, type CreatePoolIntent as Intent } from '@/core/intents'
import { within } from '@/core/estate'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'

export const createPool: ChangeKind<Intent, Step> = {
  ...createPoolIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  runStep,
  undoStep,
  prove,
  collects: ({ systemId }) => [systemId],
  reverse: ({ systemId }, facts) =>
    facts['poolId'] === undefined ? undefined : { kind: 'remove-pool', intent: { systemId, poolId: facts['poolId'] } },
}
