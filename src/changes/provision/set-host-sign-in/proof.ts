import { randomUUID } from 'node:crypto'
import { byId, canBeAsked } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangePorts, Host, SignInSecrets } from '@/ports'
import type { Evidence } from '../../ChangeKind'
import { firstStep } from '../../parts/known'
import { openedSecrets } from '../../parts/signIn'
import type { Step } from './plan'

/** Asks each system what it asks for, and lets the host try: with what it should have, and with what it should not. */
export async function prove(made: Plan<Step>, ports: ChangePorts): Promise<Evidence[]> {
  const { hostId, to } = firstStep(made)
  const estate = await ports.estate()
  const host = byId(estate.hosts, hostId)
  const secrets = await openedSecrets(to, ports)
  const evidence: Evidence[] = [
    {
      claim: 'The records say what is asked of it',
      holds: host?.signIn === to.signIn,
      measured: { kept: host?.signIn ?? 'no host', asked: to.signIn },
    },
  ]
  for (const { step } of made.steps) {
    if (step.step !== 'system') continue
    const system = byId(estate.systems, step.systemId)?.name ?? 'a system'
    const mappings = await ports.of(step.systemId, 'mappings')
    for (const initiator of step.initiators) {
      const stated = await mappings.signInOf(initiator)
      evidence.push({
        claim: `${system} states what it asks of ${initiator}`,
        holds: stated === to.signIn,
        measured: { stated: stated ?? 'nothing is told', asked: to.signIn },
      })
    }
    if (host === undefined || !canBeAsked(host)) continue
    const [target] = await mappings.targets()
    if (target !== undefined)
      evidence.push(
        ...(await tries(await ports.host(host.agentAddress), host.name, `${system} at ${target}`, target, secrets)),
      )
  }
  return evidence
}

const another = () => randomUUID().replaceAll('-', '').slice(0, 16)

async function tries(
  agent: Host,
  name: string,
  where: string,
  target: string,
  secrets: SignInSecrets | null,
): Promise<Evidence[]> {
  const attempt = async (claim: string, tried: SignInSecrets | null, isLetIn: boolean): Promise<Evidence> => {
    const why = await agent.tryLogin(target, tried)
    return { claim, holds: (why === undefined) === isLetIn, measured: { answered: why ?? 'let in' } }
  }
  if (secrets === null) return [await attempt(`${name} logs in to ${where} without a secret`, null, true)]
  const { systemSecret } = secrets
  return [
    await attempt(`${name} logs in to ${where} with its secret`, secrets, true),
    await attempt(`With another secret it is not let in to ${where}`, { ...secrets, secret: another() }, false),
    await attempt(`Without a secret it is not let in to ${where}`, null, false),
    ...(systemSecret === null
      ? []
      : [
          await attempt(
            `It does not log in to ${where} where that cannot prove itself`,
            { ...secrets, systemSecret: another() },
            false,
          ),
        ]),
  ]
}
