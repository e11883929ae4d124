import { isIP } from 'node:net'
import type { Store } from '../fleet'
import type { NameServer } from '../names/NameServer'

interface PathFilter {
  readonly from: string
  readonly address: string
}
const filters = 'pathFilters'
const mostAliases = 8

/** How hosts get to servers: where names lead, and which ways are barred. */
export class Ways {
  constructor(
    private readonly names: NameServer,
    private readonly store: Store,
  ) {}

  /** The addresses to which a name leads; an address is itself. */
  addressesOf(server: string): string[] {
    if (isIP(server) !== 0) return [server]
    return this.#recordsOf(server.toLowerCase()).flatMap(({ type, data }) =>
      type === 'A' || type === 'AAAA' ? [data] : [],
    )
  }

  /** The name that an address leads back to. */
  nameOf(address: string): string | null {
    return this.names.nameOf(address)
  }

  isBarred(address: string, from: string): boolean {
    return this.store.one<PathFilter>(filters, `${from} ${address}`) !== undefined
  }

  /** Bars the way from a host to an address, or opens it. */
  setBarred(from: string, address: string, isBarred: boolean): void {
    const id = `${from} ${address}`
    this.store.commit([{ collection: filters, id, value: isBarred ? { from, address } : null }])
  }

  /** What stands at a name, or where its aliases lead; a ring of aliases leads nowhere. */
  #recordsOf(name: string, aliases = 0): ReturnType<NameServer['zones']['at']> {
    const records = this.names.zones.at(name)
    const alias = records.find(({ type }) => type === 'CNAME')
    if (alias === undefined) return records
    return aliases >= mostAliases ? [] : this.#recordsOf(alias.data.toLowerCase().replace(/\.$/, ''), aliases + 1)
  }
}
