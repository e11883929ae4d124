import { setHostSignInIntent, type SetHostSignInIntent as Intent } from '@/core/intents'
import type { ChangePorts, HostSignIn } from '@/ports'
import type { ChangeKind, Facts } from '../../ChangeKind'
import { openedSecrets } from '../../parts/signIn'
import { plan, type Step } from './plan'
import { prove } from './proof'

async function set(step: Step, kept: HostSignIn, ports: ChangePorts): Promise<void> {
  if (step.step === 'records') return ports.records.setHostSignIn(step.hostId, kept)
  const secrets = await openedSecrets(kept, ports)
  if (step.step === 'host') return (await ports.host(step.agentAddress)).setSignIn(secrets)
  const mappings = await ports.of(step.systemId, 'mappings')
  for (const initiator of step.initiators) await mappings.setSignIn(initiator, secrets)
}

const before = (facts: Facts): HostSignIn | undefined =>
  facts['before'] === undefined ? undefined : (JSON.parse(facts['before']) as HostSignIn)

export const setHostSignIn: ChangeKind<Intent, Step> = {
  ...setHostSignInIntent,
  needs: () => [],
  plan,
  async runStep(step, { facts }, ports) {
    const was = facts['before'] ?? JSON.stringify(await ports.records.hostSignIn(step.hostId))
    await ports.keep({ before: was })
    await set(step, step.to, ports)
    return { before: was }
  },
  async undoStep(step, { facts }, ports) {
    const was = before(facts)
    if (was !== undefined) await set(step, was, ports)
    return undefined
  },
  prove: (_intent, made, _facts, ports) => prove(made, ports),
  collects: () => [],
  // What it was before may be asked for by secrets that nobody knows any more.
  reverse: ({ hostId }) => ({
    kind: 'set-host-sign-in',
    intent: { hostId, signIn: 'nothing', secretId: '', systemSecretId: '' },
  }),
}
