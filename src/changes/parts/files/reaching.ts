import type { AskedHost } from '@/core/estate'
import type { ChangePorts } from '@/ports'
import type { Evidence } from '../../ChangeKind'

/** So many hosts are asked for each that is needed: in a large estate many may stand behind the same barrier. */
const mostAsked = 3

/**
 * Of each group of hosts the first that gets through to a server: what a host is refused before it gets there says nothing of rights, and
 * what it cannot do for that reason proves nothing. Those that do not get through are told of; where none does, nothing is proven.
 */
export async function reaching<H extends AskedHost>(
  { host: agentOf }: Pick<ChangePorts, 'host'>,
  server: string,
  groups: readonly (readonly H[])[],
): Promise<{ readonly hosts: readonly H[]; readonly evidence: readonly Evidence[] }> {
  const hosts: H[] = []
  const told: Evidence[] = []
  for (const group of groups)
    for (const host of group.slice(0, mostAsked)) {
      const { address, isOpen } = await (await agentOf(host.agentAddress)).shares.connect(server)
      if (isOpen) {
        hosts.push(host)
        break
      }
      told.push({
        claim: `${host.name} does not get through to ${server}: nothing is tried from there`,
        holds: true,
        measured: { ledTo: address ?? 'nowhere' },
      })
    }
  if (hosts.length > 0 || groups.length === 0) return { hosts, evidence: told }
  const none = { claim: `A host gets through to ${server}`, holds: false, measured: { asked: `${told.length}` } }
  return { hosts, evidence: [...told, none] }
}
