import ipaddr from 'ipaddr.js'

/** Whom an export rule is for: one host by its address or name, a subnet, or any. */
export type Client =
  | { readonly kind: 'any' }
  | { readonly kind: 'name'; readonly name: string }
  | ({ readonly kind: 'address' | 'prefix' } & Block)

/** A block of addresses: the first of them, how many bits all of them share, and their family. */
export interface Block {
  readonly family: 4 | 6
  readonly first: bigint
  readonly length: number
}

export const bitsOf = (family: Block['family']) => (family === 4 ? 32 : 128)
export const sizeOf = ({ family, length }: Block): bigint => 1n << BigInt(bitsOf(family) - length)

/** RFC 1123, 2.1: labels of letters, digits and hyphens, one of them at least with a letter. */
const hostName = /^(?=.{1,253}$)(?=.*[a-z])([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*$/

/** Four numbers without leading zeros, which some read as octal. */
const dotted = /^(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})$/

/** An IPv4 address as a number; undefined where it is none. */
export function number4(text: string): number | undefined {
  const parts = dotted.exec(text)
  if (parts === null) return undefined
  let value = 0
  for (let index = 1; index <= 4; index += 1) {
    const part = Number(parts[index])
    if (part > 255) return undefined
    value = value * 256 + part
  }
  return value
}

/** An address as a block of one; undefined where it is none. An IPv4 address within IPv6 is itself (RFC 4291, 2.5.5.2). */
export function addressOf(text: string): Block | undefined {
  const plain = number4(text)
  if (plain !== undefined) return { family: 4, first: BigInt(plain), length: 32 }
  // A zone names a link of one computer: no other knows it (RFC 4007, 11.2).
  if (!text.includes(':') || text.includes('%') || !ipaddr.isValid(text)) return undefined
  const address = ipaddr.process(text)
  const family = address.kind() === 'ipv4' ? 4 : 6
  const first = address.toByteArray().reduce((sum, byte) => (sum << 8n) + BigInt(byte), 0n)
  return { family, first, length: bitsOf(family) }
}

/** Reads whom a rule is for: `*`, `10.60.40.23`, `10.60.40.0/24`, `fd00:60::/64` or a host's name. @returns why it is none of them */
export function readClient(text: string): Client | { readonly why: string } {
  const plain = text.trim().toLowerCase()
  if (plain === '*') return { kind: 'any' }
  if (plain.includes('%')) return { why: `${text} names a zone of one computer: give the address without it.` }
  const [address = '', prefix, ...rest] = plain.split('/')
  const block = addressOf(address)
  if (prefix === undefined) {
    if (block !== undefined) return { kind: 'address', ...block }
    return hostName.test(plain)
      ? { kind: 'name', name: plain }
      : { why: `"${text}" is no address, no subnet and no host's name; * means any.` }
  }
  if (block === undefined || rest.length > 0) return { why: `"${text}" is no subnet: 10.60.40.0/24 is one.` }
  const length = /^\d{1,3}$/.test(prefix) ? Number(prefix) : Infinity
  if (length > block.length) return { why: `A subnet of this family has a length of 0 to ${block.length}.` }
  const host = BigInt(block.length - length)
  const first = (block.first >> host) << host
  if (first !== block.first)
    return { why: `${text} is an address within a subnet: the subnet is ${blockText({ ...block, first, length })}.` }
  return { kind: 'prefix', family: block.family, first, length }
}

/** A subnet as it is written. */
function blockText({ family, first, length }: Block): string {
  const bytes = bitsOf(family) / 8
  const parts = Array.from({ length: bytes }, (_, index) => Number((first >> BigInt(8 * (bytes - 1 - index))) & 255n))
  return `${ipaddr.fromByteArray(parts).toString()}/${length}`
}
