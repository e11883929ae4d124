import ipaddr from 'ipaddr.js'

/** The name under which an address stands in the reverse zone. Source: RFC 1035, 3.5 for IPv4; RFC 3596, 2.5 for IPv6. */
export function reverseName(address: string): string {
  const parsed = ipaddr.parse(address)
  const bytes = parsed.toByteArray()
  if (parsed.kind() === 'ipv4') return `${bytes.reverse().join('.')}.in-addr.arpa`
  const digits = bytes.map(byte => byte.toString(16).padStart(2, '0')).join('')
  return `${digits.split('').reverse().join('.')}.ip6.arpa`
}
