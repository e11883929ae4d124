import { isIP } from 'node:net'
import type { Store } from '../fleet'
import type { NameServer } from '../names/NameServer'

interface PathFilter {
  readonly from: string
  readonly address: string
}
/** Names below a domain are asked of another server. */
export interface Forward {
  readonly domain: string
  /** `address:port`. */
  readonly server: string
}
/** Where a name leads to for a host, and who has said so. */
export interface LookedUp {
  readonly addresses: readonly string[]
  /** `address:port`; null for an address, which nobody is asked for. */
  readonly server: string | null
  /** The domain by which that server was chosen; null where it is the host's usual one. */
  readonly domain: string | null
  /** How long it may be remembered; null where nothing was said. */
  readonly keptSeconds: number | null
}
/** A name server that hosts can ask. */
export interface AskedServer {
  readonly address: string
  readonly names: NameServer
}

const filters = 'pathFilters'
const forwards = 'nameForwards'
const mostAliases = 8

/** How hosts get to servers: whom they ask for names, where these lead, and which ways are barred. */
export class Ways {
  constructor(
    private readonly store: Store,
    /** The museum's own, which most hosts ask, and the one before its border. */
    private readonly servers: { readonly own: AskedServer; readonly outside: AskedServer },
    private readonly isOutside: (from: string) => boolean,
  ) {}

  /** Where a name leads to for a host; an address is itself. */
  lookUp(server: string, from: string): LookedUp {
    if (isIP(server) !== 0) return { addresses: [server], server: null, domain: null, keptSeconds: null }
    const name = server.toLowerCase()
    const forward = this.forwardsOf(from)
      .filter(({ domain }) => name === domain || name.endsWith(`.${domain}`))
      .sort((a, b) => b.domain.length - a.domain.length)[0]
    const address = forward?.server ?? this.usualServer(from)
    const asked = Object.values(this.servers).find(each => each.address === address)
    const found = asked === undefined ? [] : recordsOf(asked.names, name)
    const led = found.filter(({ type }) => type === 'A' || type === 'AAAA')
    return {
      addresses: led.map(({ data }) => data),
      server: address,
      domain: forward?.domain ?? null,
      keptSeconds: led.length === 0 ? null : Math.min(...led.map(({ ttl }) => ttl)),
    }
  }

  /** The server that a host asks for all that is not forwarded. */
  usualServer(from: string): string {
    return (this.isOutside(from) ? this.servers.outside : this.servers.own).address
  }

  forwardsOf(from: string): Forward[] {
    return this.store.one<{ readonly forwards: Forward[] }>(forwards, from)?.forwards ?? []
  }

  /** Has names below a domain asked of another server, or no longer. */
  setForward(from: string, domain: string, server: string | null): void {
    const others = this.forwardsOf(from).filter(each => each.domain !== domain)
    const all = server === null ? others : [...others, { domain, server }]
    this.store.commit([{ collection: forwards, id: from, value: all.length === 0 ? null : { forwards: all } }])
  }

  /** The name that an address leads back to. */
  nameOf(address: string): string | null {
    return this.servers.own.names.nameOf(address)
  }

  isBarred(address: string, from: string): boolean {
    return this.store.one<PathFilter>(filters, `${from} ${address}`) !== undefined
  }

  /** Bars the way from a host to an address, or opens it. */
  setBarred(from: string, address: string, isBarred: boolean): void {
    const id = `${from} ${address}`
    this.store.commit([{ collection: filters, id, value: isBarred ? { from, address } : null }])
  }
}

/** What stands at a name, or where its aliases lead; a ring of aliases leads nowhere. */
function recordsOf(names: NameServer, name: string, aliases = 0): ReturnType<NameServer['zones']['at']> {
  const records = names.zones.at(name)
  const alias = records.find(({ type }) => type === 'CNAME')
  if (alias === undefined) return records
  return aliases >= mostAliases ? [] : recordsOf(names, alias.data.toLowerCase().replace(/\.$/, ''), aliases + 1)
}
