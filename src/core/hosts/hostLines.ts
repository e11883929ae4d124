import { csvParseRows } from 'd3-dsv'
import { nameCheck } from '../estate'
import { initiatorName } from './initiatorName'

/** A host that is asked for in a line. */
export interface HostLineAsked {
  readonly line: number
  readonly name: string
  readonly groupName: string
  readonly initiators: readonly string[]
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
 * Hosts from lines of CSV: a name, a group, and the names by which it logs in, in as many cells as there are or several in one with
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
    hosts.push({ line, name, groupName, initiators: read.names })
  })
  return { hosts, troubles }
}

/** The names in the cells of one line; why one of them cannot be used. */
function readNames(
  cells: readonly string[],
  line: number,
  seen: Map<string, number>,
): { readonly names: readonly string[] } | { readonly why: string } {
  const given = cells.flatMap(each => each.split(/[\s;]+/)).filter(each => each !== '')
  if (given.length === 0) return { why: 'nothing is said of how it logs in.' }
  if (given.length > mostInitiators) return { why: `more than ${mostInitiators} names by which it logs in.` }
  const names: string[] = []
  for (const text of given) {
    const read = initiatorName(text)
    if ('why' in read) return read
    const before = seen.get(read.name)
    if (before !== undefined) return { why: `${read.name} stands in line ${before} already.` }
    names.push(read.name)
  }
  for (const name of names) seen.set(name, line)
  return { names: [...new Set(names)] }
}
