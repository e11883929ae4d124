import type { Host } from '@/core/estate'
import { initiatorName } from '@/core/hosts'
import type { ChangePorts, HostSignIn, SignInSecrets } from '@/ports'
import type { Evidence } from '../ChangeKind'
import { SameSecret, SecretGone } from '../errors'

const overIp: ReadonlySet<string> = new Set(['IQN', 'EUI', 'NAA'])

/** Names by which a host logs in where CHAP is spoken. */
export const namesOverIp = ({ initiators }: Pick<Host, 'initiators'>) =>
  initiators.filter(each => {
    const read = initiatorName(each)
    return 'kind' in read && overIp.has(read.kind)
  })

/** Opens the secrets that go with a sign-in. @throws {SameSecret} where both sides would prove themselves by the same one */
export async function openedSecrets(kept: HostSignIn, ports: ChangePorts): Promise<SignInSecrets | null> {
  if (kept.signIn === 'nothing' || kept.secretId === null) return null
  const secret = await ports.chapSecret(kept.secretId)
  const systemSecret =
    kept.signIn === 'mutual' && kept.systemSecretId !== null ? await ports.chapSecret(kept.systemSecretId) : null
  // Whoever hears one side prove itself could else play it back as the other. Source: RFC 7143, 12.1.3.
  if (secret === systemSecret) throw new SameSecret()
  return { secret, systemSecret }
}

type Known = Pick<Host, 'id' | 'name' | 'initiators' | 'signIn'>

/** Hosts that must prove themselves, with those of some names by which they do. */
const proving = (hosts: readonly Known[], initiators: readonly string[]) =>
  hosts.flatMap(host => {
    const names = host.signIn === 'nothing' ? [] : namesOverIp(host).filter(each => initiators.includes(each))
    return names.length === 0 ? [] : [{ host, names }]
  })

/**
 * Has a system ask hosts for what they must prove themselves by, before it shows them anything: one that lets a host in for the first time
 * would else let in whoever bears its name. What it asks already is left as it is; safe to repeat.
 * @throws {SecretGone} @throws {NotOffered} where the system has no words for it
 */
export async function askedToProve(ports: ChangePorts, systemId: string, initiators: readonly string[]): Promise<void> {
  const { hosts } = await ports.estate()
  for (const { host, names } of proving(hosts, initiators)) {
    const mappings = await ports.of(systemId, 'mappings')
    const asked = await Promise.all(names.map(name => mappings.signInOf(name)))
    const open = names.filter((_, index) => asked[index] !== host.signIn)
    if (open.length === 0) continue
    const secrets = await openedSecrets(await ports.records.hostSignIn(host.id), ports)
    if (secrets === null) throw new SecretGone(host.name)
    for (const name of open) await mappings.setSignIn(name, secrets)
  }
}

/** That a system asks hosts for what they must prove themselves by; nothing where none has to. */
export async function asksToProve(
  ports: ChangePorts,
  systemId: string,
  hosts: readonly Known[],
  initiators: readonly string[],
): Promise<Evidence[]> {
  const evidence: Evidence[] = []
  for (const { host, names } of proving(hosts, initiators)) {
    const mappings = await ports.of(systemId, 'mappings')
    for (const name of names) {
      const asked = await mappings.signInOf(name)
      evidence.push({
        claim: `${host.name} has to prove itself there as ${name}`,
        holds: asked === host.signIn,
        measured: { stated: asked ?? 'nothing is told', asked: host.signIn },
      })
    }
  }
  return evidence
}
