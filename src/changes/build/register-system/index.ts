import { registerSystemIntent, type RegisterSystemIntent as Intent } from '@/core/intents'
import { one, within } from '@/core/estate'
import type { ChangeKind } from '../../ChangeKind'
import { plan } from './plan'
import { prove } from './proof'
import { runStep, undoStep, type Step } from './steps'

export const registerSystem: ChangeKind<Intent, Step> = {
  ...registerSystemIntent,
  needs: ({ probeId }, facts) => [one('probes', probeId), ...within(facts?.['systemId'])],
  plan,
  runStep,
  undoStep,
  prove,
  collects: () => [],
  reverse: (_intent, facts) =>
    facts['systemId'] === undefined ? undefined : { kind: 'forget-system', intent: { systemId: facts['systemId'] } },
}
