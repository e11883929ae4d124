import type { ChangeKind } from '../ChangeKind'
import { needs, needsAlso, plan } from './plan'
import { prove } from './proof'
import { intentSchema, type Intent } from './schema'
import { runStep, undoStep, type Step } from './steps'

export const provisionVolume: ChangeKind<Intent, Step> = {
  kind: 'provision-volume',
  title: 'Provision a volume',
  intentSchema,
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
