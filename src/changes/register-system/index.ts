import { one, within } from '@/core/estate'
import type { ChangeKind } from '../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { intentSchema, type Intent } from './schema'
import { runStep, undoStep, type Step } from './steps'

export const registerSystem: ChangeKind<Intent, Step> = {
  kind: 'register-system',
  title: 'Register a system',
  intentSchema,
  needs: ({ probeId }, facts) => [one('probes', probeId), ...within(facts?.['systemId'])],
  plan,
  runStep,
  undoStep,
  prove,
  collects: () => [],
  reverse: (_intent, facts) =>
    facts['systemId'] === undefined ? undefined : { kind: 'forget-system', intent: { systemId: facts['systemId'] } },
}
