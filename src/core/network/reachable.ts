import ipaddr from 'ipaddr.js'

/** Ranges of which nobody may register an address unasked, and why. Sources: RFC 6890, RFC 4291. */
const barred: Readonly<Record<string, string>> = {
  loopback: 'It is this server itself: through it anybody could reach what listens here for this server alone.',
  linkLocal: 'It is an address of this link only; services of the host or its cloud answer there with secrets.',
  unspecified: 'It stands for every address of this server.',
  broadcast: 'It is no one system, but all of a network.',
  multicast: 'It is no one system, but a group.',
  ipv4Mapped: 'It hides an IPv4 address in one of IPv6.',
  '6to4': 'It leads through a tunnel to an address that is not shown.',
  teredo: 'It leads through a tunnel to an address that is not shown.',
  rfc6145: 'It leads through a translator to an address that is not shown.',
  rfc6052: 'It leads through a translator to an address that is not shown.',
  reserved: 'It is reserved, and no system has it.',
}

/**
 * Why nothing may be sent to an address; undefined where it may be.
 * @param address IPv4 or IPv6, as text
 * @param allowed networks as CIDR, separated by commas or blanks, whose addresses are let through all the same
 */
export function whyBarred(address: string, allowed: string): string | undefined {
  if (!ipaddr.isValid(address)) return 'It is no address.'
  const parsed = ipaddr.parse(address)
  if (allowed.split(/[\s,]+/).some(network => isIn(parsed, network))) return undefined
  return barred[parsed.range()]
}

function isIn(address: ipaddr.IPv4 | ipaddr.IPv6, network: string): boolean {
  if (!ipaddr.isValidCIDR(network)) return false
  const [base, bits] = ipaddr.parseCIDR(network)
  return base.kind() === address.kind() && address.match(base, bits)
}

/** What of a list of networks is none; undefined where all are. */
export const wrongNetwork = (text: string): string | undefined =>
  text.split(/[\s,]+/).find(each => each !== '' && !ipaddr.isValidCIDR(each))
