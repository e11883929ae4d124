import { addressOf, bitsOf, number4, readClient } from './client'

/** How an identity is proven: by saying so, or by Kerberos, plain, with integrity or sealed. Source: RFC 2203, RFC 5531. */
export type Flavour = 'sys' | 'krb5' | 'krb5i' | 'krb5p'

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

/** Blocks of one length, by what their addresses have in common: numbers for IPv4, which are found several times as fast. */
interface Prefixes<Key> {
  /** How many bits of an address stand behind the prefix. */
  readonly host: number
  readonly at: Map<Key, number>
}

/** Rules as they are looked through: one look for each length of prefix that occurs, however many rules there are. */
export interface ExportTable {
  readonly rules: readonly ExportRule[]
  readonly names: ReadonlyMap<string, number>
  readonly hosts4: ReadonlyMap<number, number>
  readonly hosts6: ReadonlyMap<bigint, number>
  readonly prefixes4: readonly Prefixes<number>[]
  readonly prefixes6: readonly Prefixes<bigint>[]
  readonly any: number | undefined
}

const made = new WeakMap<readonly ExportRule[], ExportTable>()

/** The table of some rules, made once for a list that stays as it is. */
export function exportTable(rules: readonly ExportRule[]): ExportTable {
  const known = made.get(rules)
  if (known !== undefined) return known
  const table = newTable(rules)
  made.set(rules, table)
  return table
}

const once = <K>(map: Map<K, number>, key: K, index: number) => map.has(key) || map.set(key, index)
function prefixesOf<Key>(all: Map<number, Prefixes<Key>>, host: number): Map<Key, number> {
  const own = all.get(host) ?? { host, at: new Map<Key, number>() }
  all.set(host, own)
  return own.at
}
const longestFirst = <Key>(all: ReadonlyMap<number, Prefixes<Key>>) => [...all.values()].sort((a, b) => a.host - b.host)
const shared4 = (address: number, host: number) => Math.floor(address / 2 ** host)

/** Of rules for the same client the first listed counts; one whose client cannot be read counts for nobody. */
function newTable(rules: readonly ExportRule[]): ExportTable {
  const names = new Map<string, number>()
  const hosts4 = new Map<number, number>()
  const hosts6 = new Map<bigint, number>()
  const prefixes4 = new Map<number, Prefixes<number>>()
  const prefixes6 = new Map<number, Prefixes<bigint>>()
  let any: number | undefined
  rules.forEach(({ client }, index) => {
    const read = readClient(client)
    if ('why' in read) return
    if (read.kind === 'any') any ??= index
    else if (read.kind === 'name') once(names, read.name, index)
    else {
      const { family, first, length } = read
      const host = bitsOf(family) - length
      if (read.kind === 'address') {
        if (family === 4) once(hosts4, Number(first), index)
        else once(hosts6, first, index)
      } else if (family === 4) once(prefixesOf(prefixes4, host), shared4(Number(first), host), index)
      else once(prefixesOf(prefixes6, host), first >> BigInt(host), index)
    }
  })
  return { rules, names, hosts4, hosts6, prefixes4: longestFirst(prefixes4), prefixes6: longestFirst(prefixes6), any }
}

/**
 * The rule that decides for a host: one for the host itself, else the longest prefix, else any; among equals the first listed.
 * @returns its zero-based position; undefined where no rule is for that host
 */
export function decidingRule(table: ExportTable, { clientAddress, clientName }: Asking): number | undefined {
  const byName = clientName === null ? undefined : table.names.get(clientName.toLowerCase())
  const plain = number4(clientAddress)
  const address = plain === undefined ? addressOf(clientAddress) : undefined
  const four = plain ?? (address?.family === 4 ? Number(address.first) : undefined)
  if (four !== undefined) return byName4(table, four, byName)
  if (address === undefined) return byName ?? table.any
  const own = table.hosts6.get(address.first)
  if (own !== undefined || byName !== undefined) return Math.min(own ?? Infinity, byName ?? Infinity)
  for (const { host, at } of table.prefixes6) {
    const found = at.get(address.first >> BigInt(host))
    if (found !== undefined) return found
  }
  return table.any
}

function byName4(table: ExportTable, address: number, byName: number | undefined): number | undefined {
  const own = table.hosts4.get(address)
  if (own !== undefined || byName !== undefined) return Math.min(own ?? Infinity, byName ?? Infinity)
  for (const { host, at } of table.prefixes4) {
    const found = at.get(shared4(address, host))
    if (found !== undefined) return found
  }
  return table.any
}
