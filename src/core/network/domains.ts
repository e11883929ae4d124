import ipaddr from 'ipaddr.js'

/** Letters, digits and hyphens between dots. Sources: RFC 1035, 2.3.1; RFC 1123, 2.1. */
const domainPattern = /^(?=.{1,253}$)[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*$/

/** Why a text is no domain; undefined where it is one. @param domain in small letters, without a final dot */
export const domainTrouble = (domain: string): string | undefined =>
  domainPattern.test(domain) && !ipaddr.isValid(domain)
    ? undefined
    : 'Give a domain of letters, digits and hyphens between dots, such as files.museum.example.'

/** Whether a name is a domain, or lies below it. */
export const isWithin = (name: string, domain: string): boolean => {
  const own = name.toLowerCase().replace(/\.$/, '')
  return own === domain || own.endsWith(`.${domain}`)
}

/** Why a text names no name server; undefined where it does. @param server `address:port`, an address of IPv6 in brackets */
export function serverTrouble(server: string): string | undefined {
  const parts = /^(?:\[([0-9a-fA-F:]+)\]|([0-9.]+)):(\d{1,5})$/.exec(server)
  const port = Number(parts?.[3])
  const isOne = parts !== null && isAddress(parts) && port > 0 && port <= 65_535
  return isOne ? undefined : 'Give its address and port, such as 10.0.0.53:53 or [fd00::53]:53.'
}

const isAddress = ([, six, four]: RegExpExecArray) =>
  six === undefined ? ipaddr.IPv4.isValidFourPartDecimal(four ?? '') : ipaddr.IPv6.isValid(six)
