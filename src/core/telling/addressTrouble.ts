import type { Way } from '../estate'

const schemes: Readonly<Record<Way, readonly string[]>> = {
  webhook: ['https:', 'http:'],
  mail: ['smtp:', 'smtps:'],
  syslog: ['udp:', 'tcp:', 'tls:'],
}
const examples: Readonly<Record<Way, string>> = {
  webhook: 'https://desk.example/told',
  mail: 'smtp://mail.example:25',
  syslog: 'udp://log.example:514',
}

/** Why an address cannot be told to by a way; undefined where it can. */
export function addressTrouble(way: Way, address: string): string | undefined {
  const example = `such as ${examples[way]}`
  if (!URL.canParse(address)) return `Give its address, ${example}.`
  const url = new URL(address)
  if (!schemes[way].includes(url.protocol))
    return `It begins with ${schemes[way].map(each => `${each}//`).join(' or ')}, ${example}.`
  if (url.hostname === '') return `It names no host: ${example}.`
  if (url.username !== '' || url.password !== '') return 'Credentials are given beside it, not in it.'
  if (way !== 'webhook' && (url.pathname.length > 1 || url.search !== '' || url.hash !== ''))
    return `It has a host and a port only, ${example}.`
  return undefined
}
