import { within } from '@/core/estate'
import type { ChangeKind } from '../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { intentSchema, type Intent } from './schema'
import { runStep, undoStep, type Step } from './steps'

export const createPool: ChangeKind<Intent, Step> = {
  kind: 'create-pool',
  title: 'Create a pool',
  intentSchema,
  needs: ({ systemId }) => within(systemId),
  plan,
  runStep,
  undoStep,
  prove,
  collects: ({ systemId }) => [systemId],
  reverse: ({ systemId }, facts) =>
    facts['poolLocator'] === undefined
      ? undefined
      : { kind: 'remove-pool', intent: { systemId, poolId: facts['poolId'] ?? '' } },
}
