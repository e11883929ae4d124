import ipaddr from 'ipaddr.js'
import { formatSeconds } from '../units'

/** The way from a host to a server, as the host finds it. */
export interface WayFound {
  readonly name: {
    readonly server: string | null
    readonly domain: string | null
    readonly addresses: readonly string[]
    readonly keptSeconds: number | null
    readonly milliseconds: number
  }
  readonly address: string | null
  readonly route: { readonly source: string; readonly gateway: string | null } | null
  readonly ports: readonly {
    readonly port: number
    readonly isOpen: boolean
    readonly speaks: string | null
    readonly milliseconds: number
  }[]
}

/** What is to be reached. */
export interface Reached {
  /** Of the file service, in full. */
  readonly name: string
  /** At which the service answers by its system's account. */
  readonly addresses: readonly string[]
  readonly over: 'NFS' | 'SMB'
  readonly share: string
  /** By its system: whether it is served over that protocol. */
  readonly isServedSo: boolean
  /** What the rights that its system states let whoever tries it do. */
  readonly may: Readonly<Record<'mount' | 'read' | 'write', boolean>>
}

/** What came of mounting, reading and writing: why each was refused; null where it was not. */
export interface Tried {
  readonly mount: string | null
  readonly read: string | null
  readonly write: string | null
  readonly milliseconds: number
}

export type HopName = 'name' | 'address' | 'route' | 'port' | 'protocol' | 'share' | 'read' | 'write'
export interface ConnectionHop {
  readonly hop: HopName
  readonly label: string
  readonly state: 'passes' | 'stops' | 'not tried'
  readonly words: string
  /** As the host took it; null where it is no exchange of its own. */
  readonly milliseconds: number | null
}

/** Where servers listen. Sources: RFC 8881, 2.9.3; MS-SMB2, 2.1. */
export const filePorts = { NFS: 2049, SMB: 445 } as const

/** `private` within an organisation (RFC 1918, RFC 4193), `public` else; undefined for what is no address. */
export function kindOfAddress(text: string): 'private' | 'public' | undefined {
  if (!ipaddr.isValid(text)) return undefined
  const range = ipaddr.process(text).range()
  return range === 'private' || range === 'uniqueLocal' ? 'private' : 'public'
}

/** Every hop from a host to a share in its order, with what was found there; behind the first that stops nothing was tried. */
export function connectionHops(way: WayFound, to: Reached, tried: Tried | undefined): ConnectionHop[] {
  const port = way.ports.find(each => each.port === filePorts[to.over])
  const isOurs = way.address !== null && to.addresses.includes(way.address)
  return inOrder([
    {
      hop: 'name',
      label: 'Name',
      isOpen: way.address !== null,
      words: nameWords(way, to),
      milliseconds: way.name.milliseconds,
    },
    { hop: 'address', label: 'Address', isOpen: isOurs, words: addressWords(way.address, to), milliseconds: null },
    { hop: 'route', label: 'Route', isOpen: way.route !== null, words: routeWords(way.route), milliseconds: null },
    {
      hop: 'port',
      label: `Port ${filePorts[to.over]}`,
      isOpen: port?.isOpen === true,
      words: port?.isOpen === true ? 'somebody listens' : 'nobody answers: not there, or barred on the way',
      milliseconds: port?.milliseconds ?? null,
    },
    protocolHop(port?.speaks ?? '', to),
    {
      hop: 'share',
      label: to.over === 'SMB' ? 'Sign-in' : 'Mount',
      ...triedWords(tried, to, 'mount', to.over === 'SMB' ? 'the share is entered' : 'it is let in'),
    },
    { hop: 'read', label: 'Read', ...triedWords(tried, to, 'read', 'its root may be read'), milliseconds: null },
    {
      hop: 'write',
      label: 'Write',
      ...triedWords(tried, to, 'write', 'its root may be written to'),
      milliseconds: null,
    },
  ])
}

function protocolHop(spoken: string, { over, share, isServedSo }: Reached): Step {
  const speaks = spoken.startsWith(over)
  const served = isServedSo ? `${spoken} is agreed on` : `${spoken} is spoken, but ${share} is not shared so`
  return {
    hop: 'protocol',
    label: 'Protocol',
    isOpen: speaks && isServedSo,
    words: speaks ? served : `no ${over} is spoken there`,
    milliseconds: null,
  }
}

type Step = Omit<ConnectionHop, 'state'> & { readonly isOpen: boolean }

/** Where not to write is all that is refused, the way has been gone all the same: what is behind reading is told by itself. */
function inOrder(steps: readonly Step[]): ConnectionHop[] {
  let isBarred = false
  return steps.map(({ isOpen, ...hop }) => {
    if (isBarred) return { ...hop, state: 'not tried', words: 'not tried', milliseconds: null }
    isBarred = !isOpen && hop.hop !== 'read'
    return { ...hop, state: isOpen ? 'passes' : 'stops' }
  })
}

function nameWords({ name, address }: WayFound, to: Reached): string {
  if (name.server === null) return `${to.name} is an address itself`
  const by = name.domain === null ? name.server : `${name.server}, asked for ${name.domain}`
  const kept = name.keptSeconds === null ? '' : `; kept ${formatSeconds(name.keptSeconds)}`
  const led = address === null ? `${to.name} is not known` : `${to.name} leads to ${name.addresses.join(', ')}`
  return `${led}, says ${by}${kept}`
}

function addressWords(address: string | null, { addresses }: Reached): string {
  if (address === null) return 'none'
  const kind = kindOfAddress(address)
  if (kind === undefined) return `${address} is no address`
  if (addresses.includes(address)) return `${address}, ${kind}: one of the service's own`
  return `${address}, ${kind}: not one of the service's own, which are ${addresses.join(', ')}`
}

const routeWords = (route: WayFound['route']): string =>
  route === null
    ? 'no route leads there'
    : `from ${route.source}, ${route.gateway === null ? 'straight, in its own network' : `through ${route.gateway}`}`

function triedWords(tried: Tried | undefined, { may }: Reached, part: 'mount' | 'read' | 'write', words: string) {
  const isOpen = tried !== undefined && tried[part] === null
  const agrees = isOpen === may[part] ? 'as its rights say' : 'though its rights say otherwise'
  return {
    isOpen,
    words: tried === undefined ? 'not tried' : `${tried[part] ?? words}, ${agrees}`,
    milliseconds: tried?.milliseconds ?? null,
  }
}

const onTheWay: ReadonlySet<HopName> = new Set(['name', 'address', 'route', 'port'])

/** Whether the way is barred before anybody has said anything of rights. */
export const isBarredOnTheWay = (hops: readonly ConnectionHop[]): boolean =>
  hops.some(({ hop, state }) => state === 'stops' && onTheWay.has(hop))

/** What would lead a host to a service that it does not get to. */
export interface WayOut {
  readonly words: string
  /** Names below the domain asked of that server: what a change can set on the host; null where no name is at fault. */
  readonly forward: { readonly domain: string; readonly server: string } | null
}

/**
 * The way out where the name leads elsewhere or its address is barred: the private path, if the host gets through to one of the service's
 * own addresses, with the forwarder that leads it there; else what those who keep the network have to open.
 * @param direct the service's own addresses, each with whether the host gets through to it
 * @param nameServer that knows the service's own addresses, as `address:port`; empty where none is set
 */
export function wayOut(
  way: WayFound,
  to: Reached,
  direct: readonly { readonly address: string; readonly isOpen: boolean }[],
  nameServer: string,
): WayOut {
  const source = way.route?.source ?? 'the host'
  const port = `TCP ${filePorts[to.over]}`
  const open = direct.filter(({ isOpen }) => isOpen).map(({ address }) => address)
  if (open.length === 0)
    return {
      words: `None of its own addresses answers either. Have ${port} let through from ${source} to ${to.addresses.join(', ')}.`,
      forward: null,
    }
  const through = `From ${source} the private path is open: ${open.join(', ')} ${open.length === 1 ? 'answers' : 'answer'} at ${port}.`
  if (way.address !== null && to.addresses.includes(way.address))
    return {
      words: `${through} ${way.address} does not: have it let through too, or see whether that node is up.`,
      forward: null,
    }
  if (nameServer === '' || way.name.server === null || way.name.server === nameServer)
    return { words: `${through} Let ${to.name} lead to there.`, forward: null }
  return {
    words: `${through} Only its name leads elsewhere: ask ${nameServer} for it, instead of ${way.name.server}.`,
    forward: { domain: to.name.toLowerCase(), server: nameServer },
  }
}
