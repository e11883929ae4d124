import { csvParseRows } from 'd3-dsv'
import { addressOf } from '../access'
import { nameCheck } from '../estate'
import { plainAddress } from '../network'
import { initiatorName } from './initiatorName'

/** A host that is asked for in a line. */
export interface HostLineAsked {
  readonly line: number
  readonly name: string
  readonly groupName: string
  readonly initiators: readonly string[]
  /** By which it is known on the network. */
  readonly addresses: readonly string[]
}

export interface ReadHostLines {
  readonly hosts: readonly HostLineAsked[]
  /** What could not be read, with the number of its line. */
  readonly troubles: readonly { readonly line: number; readonly why: string }[]
}

/** One draft registers so many at most. */
const mostHosts = 10_000
const mostInitiators = 64

/**
 * Hosts from lines of CSV: a name, a group, and the names by which it logs in and its addresses on the network, in as many cells as there are or several in one with
 * spaces between. A group that is left empty is the host's own. A first line of heads is passed over. Source: RFC 4180.
 */
export function readHostLines(text: string): ReadHostLines {
  const hosts: HostLineAsked[] = []
  const troubles: { line: number; why: string }[] = []
  const lineOf = { host: new Map<string, number>(), initiator: new Map<string, number>() }
  let isFull = false
  csvParseRows(text.trim()).forEach((row, index) => {
    const line = index + 1
    const [name = '', group = '', ...rest] = row.map(each => each.trim())
    if (row.every(each => each.trim() === '')) return
    if (index === 0 && name.toLowerCase() === 'name') return
    const say = (why: string) => troubles.push({ line, why })
    if (hosts.length >= mostHosts) {
      if (!isFull) say(`More than ${mostHosts.toLocaleString('en')} hosts in one draft.`)
      isFull = true
      return
    }
    const groupName = group === '' ? name : group
    for (const check of [nameCheck(name, 'the host'), nameCheck(groupName, 'the host group')])
      if (!check.holds) return void say(`"${name.slice(0, 60)}": ${check.why}`)
    const before = lineOf.host.get(name)
    if (before !== undefined) return void say(`${name} stands in line ${before} already.`)
    lineOf.host.set(name, line)
    const read = readNames(rest, line, lineOf.initiator)
    if ('why' in read) return void say(`${name}: ${read.why}`)
    hosts.push({ line, name, groupName, initiators: read.names, addresses: read.addresses })
  })
  return { hosts, troubles }
}

/** The names in the cells of one line; why one of them cannot be used. */
function readNames(
  cells: readonly string[],
  line: number,
  seen: Map<string, number>,
): { readonly names: readonly string[]; readonly addresses: readonly string[] } | { readonly why: string } {
  const given = cells.flatMap(each => each.split(/[\s;]+/)).filter(each => each !== '')
  if (given.length === 0) return { why: 'nothing is said of how it logs in, or at which address it is.' }
  if (given.length > mostInitiators) return { why: `more than ${mostInitiators} names by which it logs in.` }
  const names: string[] = []
  const addresses: string[] = []
  for (const text of given) {
    const named = initiatorName(text)
    // A WWPN with colons could be an IPv6 address as well: it never is one.
    const address = 'why' in named && addressOf(text) !== undefined ? plainAddress(text) : undefined
    const read = address === undefined ? named : { name: address }
    if ('why' in read) return read
    const before = seen.get(read.name)
    if (before !== undefined) return { why: `${read.name} stands in line ${before} already.` }
    ;(address === undefined ? names : addresses).push(read.name)
  }
  for (const name of [...names, ...addresses]) seen.set(name, line)
  return { names: [...new Set(names)], addresses: [...new Set(addresses)] }
}
