import { addressOf, bitsOf, readClient, type Block } from './client'

/** How who asks proves to be who he says: by saying so, or by Kerberos, plain, with integrity or sealed. Source: RFC 2203, RFC 5531. */
export const flavours = ['sys', 'krb5', 'krb5i', 'krb5p'] as const
export type Flavour = (typeof flavours)[number]

/** What hosts may do with a share, and as whom. */
export interface ExportRule {
  /** `*`, an address, a subnet or a host's name. */
  readonly client: string
  readonly access: 'rw' | 'ro' | 'none'
  /** Whose ids are not believed: nobody's, those of root, or all. */
  readonly squash: 'none' | 'root' | 'all'
  readonly anonUid: number
  readonly anonGid: number
  readonly flavours: readonly Flavour[]
}

/** The host that asks; its name is null where the server finds none. */
export interface Asking {
  readonly clientAddress: string
  readonly clientName: string | null
}

/** Rules as they are looked through: one look for each length of prefix that occurs, however many rules there are. */
export interface ExportTable {
  readonly rules: readonly ExportRule[]
  readonly hosts: ReadonlyMap<string, number>
  readonly prefixes: readonly {
    readonly family: Block['family']
    readonly length: number
    readonly at: ReadonlyMap<bigint, number>
  }[]
  readonly any: number | undefined
}

const hostKey = ({ family, first }: Block) => `${family}/${first}`

/** Of rules for the same client the first listed counts; one whose client cannot be read counts for nobody. */
export function exportTable(rules: readonly ExportRule[]): ExportTable {
  const hosts = new Map<string, number>()
  const prefixes = new Map<string, { family: Block['family']; length: number; at: Map<bigint, number> }>()
  let any: number | undefined
  const once = <K>(map: Map<K, number>, key: K, index: number) => map.has(key) || map.set(key, index)
  rules.forEach(({ client }, index) => {
    const read = readClient(client)
    if ('why' in read) return
    if (read.kind === 'any') any ??= index
    else if (read.kind === 'name') once(hosts, read.name, index)
    else if (read.kind === 'address') once(hosts, hostKey(read), index)
    else {
      const { family, length } = read
      const own = prefixes.get(`${family}/${length}`) ?? { family, length, at: new Map<bigint, number>() }
      prefixes.set(`${family}/${length}`, own)
      once(own.at, read.first, index)
    }
  })
  return { rules, hosts, prefixes: [...prefixes.values()].sort((a, b) => b.length - a.length), any }
}

/**
 * The rule that decides for a host: one for the host itself, else the longest prefix, else any; among equals the first listed.
 * @returns its zero-based position; undefined where no rule is for that host
 */
export function decidingRule(table: ExportTable, { clientAddress, clientName }: Asking): number | undefined {
  const address = addressOf(clientAddress)
  const byAddress = address === undefined ? undefined : table.hosts.get(hostKey(address))
  const byName = clientName === null ? undefined : table.hosts.get(clientName.toLowerCase())
  if (byAddress !== undefined || byName !== undefined) return Math.min(byAddress ?? Infinity, byName ?? Infinity)
  if (address === undefined) return table.any
  for (const { family, length, at } of table.prefixes) {
    if (family !== address.family) continue
    const host = BigInt(bitsOf(family) - length)
    const found = at.get((address.first >> host) << host)
    if (found !== undefined) return found
  }
  return table.any
}
