import { one, those } from '@/core/estate'
import { bringBackFileIntent, type BringBackFileIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { firstStep } from '../../parts/known'
import { plan } from './plan'
import { bringBack, prove, takeAway, type Step } from './steps'

/** Copies one file from a snapshot back to the host that uses the volume. */
export const bringBackFile: ChangeKind<Intent, Step> = {
  ...bringBackFileIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId), those('snapshots', 'volumeId', volumeId)],
  plan,
  runStep: (step, { facts }, ports) => bringBack(step, facts, ports),
  undoStep: (step, { facts }, ports) => takeAway(step, facts, ports),
  prove: (_intent, plan, facts, ports) => prove(firstStep(plan), facts, ports),
  collects: () => [],
  reverse: () => undefined,
}
