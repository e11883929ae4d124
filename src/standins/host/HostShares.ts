import { ports, type FileServers, type FileWanted, type Listed, type NotDone, type Part, type Who } from '../files'
import { refuse } from './HostRefused'

/** A share in the host's table of file systems: mounted now, and at every start. */
export interface ShareMount {
  readonly server: string
  /** As the server exports it; over SMB its name behind two slashes. */
  readonly share: string
  /** Where the host has it. */
  readonly path: string
  readonly isMounted: boolean
}

interface Table {
  readonly all: () => readonly ShareMount[]
  readonly keep: (shares: readonly ShareMount[]) => void
}

/** The status of an answer, by what has come of a request to a server. */
const statusOf = { refused: 403, 'not there': 404, full: 507, silent: 504 } as const

const networkOf = (address: string) => address.split('.').slice(0, 3).join('.')

function timed<T>(act: () => T): { readonly value: T; readonly milliseconds: number } {
  const began = performance.now()
  const value = act()
  return { value, milliseconds: performance.now() - began }
}

/** Shares that a host reaches over the network, and what somebody on it may do there. */
export class HostShares {
  constructor(
    private readonly servers: FileServers,
    private readonly from: string,
    private readonly table: Table,
  ) {}

  all(): readonly ShareMount[] {
    return this.table.all()
  }

  /** Whether something listens at a server's address, and which address its name leads to. */
  connect(server: string): {
    readonly address: string | null
    readonly isOpen: boolean
    readonly lookupMilliseconds: number
  } {
    const began = performance.now()
    const address = this.servers.addresses.addressOf(server, this.from)
    const lookupMilliseconds = performance.now() - began
    const isOpen = address !== undefined && this.servers.addresses.isOpen(address, this.from)
    return { address: address ?? null, isOpen, lookupMilliseconds }
  }

  /** The whole way to a server: who is asked for its name, where that leads, by which route, and what listens there. */
  way(server: string) {
    const name = timed(() => this.servers.ways.lookUp(server, this.from))
    const address = this.servers.addresses.addressOf(server, this.from) ?? null
    const gateway = address === null || networkOf(address) === networkOf(this.from) ? null : `${networkOf(this.from)}.1`
    const listening = (port: number) => {
      const { value: speaks, milliseconds } = timed(() =>
        this.servers.addresses.speaksAt(address ?? '', port, this.from),
      )
      return { port, isOpen: speaks !== null, speaks, milliseconds }
    }
    return {
      name: { ...name.value, milliseconds: name.milliseconds },
      address,
      route: address === null ? null : { source: this.from, gateway },
      ports: address === null ? [] : Object.values(ports).map(listening),
    }
  }

  /** What somebody may do with a share, without leaving anything behind. */
  try(server: string, share: string, as: Who) {
    return this.servers.tryShare(server, share, this.from, as)
  }

  /** Whom it asks for names: one server for all, others for names below some domains. */
  get resolver() {
    const { ways } = this.servers
    return { server: ways.usualServer(this.from), forwards: ways.forwardsOf(this.from) }
  }

  /** Has names below a domain asked of another server; an empty one: no longer. */
  setForward(domain: string, server: string): void {
    this.servers.ways.setForward(this.from, domain, server === '' ? null : server)
  }

  mount(server: string, share: string, path: string): void {
    const others = this.table.all().filter(each => each.path !== path)
    const there = this.table.all().find(each => each.path === path)
    if (there !== undefined && (there.server !== server || there.share !== share))
      throw refuse(
        409,
        'Nothing was mounted.',
        `${there.server}:${there.share} is mounted at ${path}.`,
        'Choose another path.',
      )
    this.#done(this.servers.mount(server, share, this.from), 'Nothing was mounted.')
    this.table.keep([...others, { server, share, path, isMounted: true }])
  }

  unmount(path: string): void {
    const left = this.table.all().filter(each => each.path !== path)
    if (left.length < this.table.all().length) this.table.keep(left)
  }

  /** At a start: what its server still lets it mount is mounted. */
  mountAll(): void {
    const up = this.table.all().map(each => ({
      ...each,
      isMounted: this.servers.mount(each.server, each.share, this.from).kind === 'done',
    }))
    if (up.length > 0) this.table.keep(up)
  }

  has(path: string): boolean {
    return this.#at(path) !== undefined
  }

  write(path: string, as: Who, wanted: Omit<FileWanted, 'name'>): string {
    const { server, share, within } = this.#mounted(path)
    const file = { ...wanted, name: within }
    return this.#done(this.servers.write(server, share, this.from, as, file), 'Nothing was written.')
  }

  /** @param part left out: all of it */
  read(path: string, as: Who, part?: Part): string {
    const { server, share, within } = this.#mounted(path)
    return this.#done(this.servers.read(server, share, this.from, as, within, part), 'Nothing was read.')
  }

  list(path: string, as: Who, after: string, limit: number): Listed {
    const { server, share, within } = this.#mounted(path)
    return this.#done(this.servers.list(server, share, this.from, as, { within, after, limit }), 'Nothing was listed.')
  }

  remove(path: string, as: Who): void {
    const { server, share, within } = this.#mounted(path)
    this.#done(this.servers.remove(server, share, this.from, as, within), 'Nothing was removed.')
  }

  #done<T>(answer: { readonly kind: 'done'; readonly value: T } | NotDone, what: string): T {
    if (answer.kind === 'done') return answer.value
    throw refuse(
      statusOf[answer.kind],
      what,
      `The server answers: ${answer.why}.`,
      'Look at the share’s rules and modes.',
    )
  }

  #at(path: string): ShareMount | undefined {
    return this.table.all().find(each => each.isMounted && `${path}/`.startsWith(`${each.path}/`))
  }

  #mounted(path: string) {
    const mount = this.#at(path)
    if (mount === undefined)
      throw refuse(404, 'Nothing was done.', `No share is mounted at ${path}.`, 'Mount it first.')
    return { ...mount, within: path.slice(mount.path.length + 1) }
  }
}
