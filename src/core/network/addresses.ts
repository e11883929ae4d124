import ipaddr from 'ipaddr.js'

/** An address with its subnet; the text is the shortest form of the address (RFC 5952 for IPv6). */
export interface Subnetted {
  readonly address: string
  readonly prefixLength: number
  readonly family: 'IPv4' | 'IPv6'
}

/** Reads `10.20.30.11/24` or `fd00:20::11/64`; undefined where it is neither. */
export function readAddress(text: string): Subnetted | undefined {
  const [address = '', prefix = '', ...rest] = text.trim().split('/')
  if (rest.length > 0 || !/^\d{1,3}$/.test(prefix) || !ipaddr.isValid(address)) return undefined
  // A zone names a link of one computer: no other knows it (RFC 4007, 11.2).
  if (address.includes('%')) return undefined
  const parsed = ipaddr.parse(address)
  // A dotted address with fewer than four parts is valid to old libraries, and never meant.
  if (parsed.kind() === 'ipv4' && address.split('.').length !== 4) return undefined
  const prefixLength = Number(prefix)
  if (prefixLength > (parsed.kind() === 'ipv4' ? 32 : 128)) return undefined
  return { address: parsed.toString(), prefixLength, family: parsed.kind() === 'ipv4' ? 'IPv4' : 'IPv6' }
}

/** The same address in its shortest form, so that two spellings of one are equal; undefined where it is none. */
export const plainAddress = (text: string): string | undefined =>
  ipaddr.isValid(text) ? ipaddr.parse(text).toString() : undefined

/**
 * The addresses that follow a first one, itself included.
 * @returns undefined where the subnet ends before them
 */
export function consecutiveAddresses(
  { address, prefixLength, family }: Subnetted,
  count: number,
): string[] | undefined {
  const bytes = ipaddr.parse(address).toByteArray()
  const bits = BigInt(bytes.length * 8)
  const first = bytes.reduce((sum, byte) => sum * 256n + BigInt(byte), 0n)
  const size = 1n << (bits - BigInt(prefixLength))
  const network = (first / size) * size
  const last = first + BigInt(count) - 1n
  // The first address of a subnet names it, and the last of an IPv4 one is its broadcast. Source: RFC 1122, 3.2.1.3.
  const isUsable = first > network && last < network + size - (family === 'IPv4' ? 1n : 0n)
  if (!isUsable && size > 2n) return undefined
  return Array.from({ length: count }, (_, index) => addressOf(first + BigInt(index), bytes.length))
}

export function inOneSubnet(addresses: readonly Subnetted[]): boolean {
  const [first] = addresses
  if (first === undefined) return true
  const network = ipaddr.parse(first.address)
  return addresses.every(each => {
    const other = ipaddr.parse(each.address)
    return (
      each.family === first.family &&
      each.prefixLength === first.prefixLength &&
      other.kind() === network.kind() &&
      other.match(network, first.prefixLength)
    )
  })
}

function addressOf(value: bigint, length: number): string {
  const bytes = Array.from({ length }, (_, index) => Number((value >> BigInt(8 * (length - 1 - index))) & 255n))
  return ipaddr.fromByteArray(bytes).toString()
}
