import type { IncomingMessage } from 'node:http'
import ipaddr from 'ipaddr.js'

type Network = [ipaddr.IPv4 | ipaddr.IPv6, number]

/** Networks as CIDR or single addresses, separated by commas or blanks. @throws {Error} where one is neither */
export function networksOf(text: string): Network[] {
  return text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(each => {
      if (each.includes('/')) return ipaddr.parseCIDR(each)
      const address = ipaddr.process(each)
      return [address, address.kind() === 'ipv4' ? 32 : 128]
    })
}

const isIn = (address: ipaddr.IPv4 | ipaddr.IPv6, networks: readonly Network[]) =>
  networks.some(([network, bits]) => network.kind() === address.kind() && address.match(network, bits))

/** Who sent a request, and whether it came over TLS. */
export interface Peer {
  /** As text; an IPv6 address as its network of 64 bits, which is one customer's. */
  readonly address: string
  readonly isOverTls: boolean
}

/**
 * Who sent a request. What `X-Forwarded-For` and `X-Forwarded-Proto` say is believed only of proxies of ours: from the right, the first
 * address that is none of theirs is the sender's.
 */
export function peerOf(request: Pick<IncomingMessage, 'headers' | 'socket'>, trusted: readonly Network[]): Peer {
  const direct = request.socket.remoteAddress ?? ''
  if (!ipaddr.isValid(direct)) return { address: 'unknown', isOverTls: false }
  let address = ipaddr.process(direct)
  if (!isIn(address, trusted)) return { address: shown(address), isOverTls: false }
  const hops = String(request.headers['x-forwarded-for'] ?? '').split(',')
  for (let hop = hops.pop()?.trim(); hop !== undefined && ipaddr.isValid(hop); hop = hops.pop()?.trim()) {
    address = ipaddr.process(hop)
    if (!isIn(address, trusted)) break
  }
  const protocol = String(request.headers['x-forwarded-proto'] ?? '')
    .split(',')
    .at(-1)
    ?.trim()
  return { address: shown(address), isOverTls: protocol === 'https' }
}

function shown(address: ipaddr.IPv4 | ipaddr.IPv6): string {
  if (address.kind() === 'ipv4') return address.toString()
  const bytes = address.toByteArray()
  return `${ipaddr.fromByteArray([...bytes.slice(0, 8), ...Array<number>(8).fill(0)]).toString()}/64`
}
