import { Resolver } from 'node:dns/promises'
import { reverseName } from '@/core/network'
import type { NamesFound, NameServer } from '@/ports'

const patienceMilliseconds = 2000
/** What a resolver says of a name or type that is not there, against a server that does not answer. */
const unknown = new Set(['ENOTFOUND', 'ENODATA'])

/** A name server by its address, as `host:port`; asked over UDP, and over TCP where an answer does not fit. */
export function nameServer(address: string): NameServer {
  const resolver = new Resolver({ timeout: patienceMilliseconds, tries: 2 })
  resolver.setServers([address])
  const asked = async (work: () => Promise<string[]>): Promise<NamesFound> => {
    try {
      return { answers: await work(), why: null }
    } catch (cause) {
      const code = (cause as { code?: string }).code ?? 'unknown'
      return { answers: [], why: unknown.has(code) ? 'no such record' : `the name server did not answer (${code})` }
    }
  }
  return {
    async forward(name) {
      const four = await asked(() => resolver.resolve4(name))
      const six = await asked(() => resolver.resolve6(name))
      const answers = [...four.answers, ...six.answers]
      return { answers, why: answers.length > 0 ? null : four.why }
    },
    // Not `resolver.reverse`: that also reads this machine's own list of hosts, and takes silence for a missing record.
    reverse: at => asked(() => resolver.resolvePtr(reverseName(at))),
  }
}
