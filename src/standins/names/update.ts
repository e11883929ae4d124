import ipaddr from 'ipaddr.js'
import type { Packet } from 'dns-packet'
import { serverName } from './answerTo'
import { plain, recordTypes, type NameRecord, type RecordType, type Zones } from './Zones'

/** Source: RFC 2136, 2.2. */
const codes = { badFormat: 1, noName: 3, refused: 5, nameThere: 6, setThere: 7, noSet: 8, notOurs: 9, outside: 10 }
const classes = { IN: 1, NONE: 254, ANY: 255 } as const
const typeNumbers: Readonly<Record<number, RecordType | 'SOA' | 'NS' | 'ANY'>> = {
  1: 'A',
  2: 'NS',
  5: 'CNAME',
  6: 'SOA',
  12: 'PTR',
  28: 'AAAA',
  255: 'ANY',
}

interface Line {
  readonly name: string
  readonly type: string
  readonly class: number
  readonly ttl: number
  /** Null where the record states none, as deletions do. */
  readonly data: string | null
}
export interface Update {
  readonly id: number
  readonly zone: { readonly name: string; readonly type: string } | undefined
  readonly prerequisites: readonly Line[]
  readonly changes: readonly Line[]
}

/** A name from its labels, some of which may lie elsewhere in the message. */
function nameAt(bytes: Buffer, from: number): { readonly text: string; readonly next: number } {
  const labels: string[] = []
  let next = -1
  for (let here = from, jumps = 0; ; ) {
    const length = bytes.readUInt8(here)
    if (length >= 192) {
      if (next < 0) next = here + 2
      if ((jumps += 1) > 32) throw new RangeError('The names lead round in a ring.')
      here = bytes.readUInt16BE(here) & 0x3fff
      continue
    }
    if (length === 0) return { text: labels.join('.').toLowerCase(), next: next < 0 ? here + 1 : next }
    labels.push(bytes.toString('latin1', here + 1, here + 1 + length))
    if (here + 1 + length > bytes.length) throw new RangeError('A name has no end.')
    here += 1 + length
  }
}

/**
 * Reads a dynamic update from its bytes: its records may be without data and of classes that mean "any" and "none", which readers of
 * ordinary answers do not know. Source: RFC 2136, 2; RFC 1035, 4.1.4 for names. @throws {RangeError} where it ends too early
 */
export function readUpdate(bytes: Buffer): Update {
  let at = 12
  const head = () => {
    const read = nameAt(bytes, at)
    const type = bytes.readUInt16BE(read.next)
    const own = { name: read.text, type: typeNumbers[type] ?? `TYPE${type}`, class: bytes.readUInt16BE(read.next + 2) }
    at = read.next + 4
    return own
  }
  const line = (): Line => {
    const own = head()
    const ttl = bytes.readUInt32BE(at)
    const length = bytes.readUInt16BE(at + 4)
    const from = at + 6
    if (from + length > bytes.length) throw new RangeError('A record has no end.')
    at = from + length
    return {
      ...own,
      ttl,
      data: length === 0 ? null : dataOf(own.type, bytes.subarray(from, at), () => nameAt(bytes, from).text),
    }
  }
  const many = <T>(count: number, read: () => T) => Array.from({ length: count }, read)
  const [zone] = many(bytes.readUInt16BE(4), head)
  const prerequisites = many(bytes.readUInt16BE(6), line)
  return { id: bytes.readUInt16BE(0), zone, prerequisites, changes: many(bytes.readUInt16BE(8), line) }
}

function dataOf(type: string, bytes: Buffer, name: () => string): string {
  if (type === 'A' || type === 'AAAA') return ipaddr.fromByteArray([...bytes]).toString()
  return type === 'CNAME' || type === 'PTR' || type === 'NS' ? name() : bytes.toString('base64')
}

/** Carries out an update wholly or not at all, and says which. Source: RFC 2136, 3. */
export function updated(zones: Zones, update: Update): Packet {
  const rcode = judged(zones, update)
  return {
    type: 'response',
    id: update.id,
    flags: (5 << 11) | rcode,
    questions: update.zone === undefined ? [] : [{ name: update.zone.name, type: 'SOA' }],
    answers: [],
  }
}

function judged(zones: Zones, { zone, prerequisites, changes }: Update): number {
  if (zone?.type !== 'SOA') return codes.badFormat
  if (!zones.names.includes(zone.name)) return codes.notOurs
  const isWithin = (name: string) => zones.zoneOf(name) === zone.name
  if (![...prerequisites, ...changes].every(each => isWithin(each.name))) return codes.outside
  const missed = unmet(zones, prerequisites)
  if (missed !== 0) return missed
  const isProtected = (name: string) => zones.names.includes(name) || name === serverName(zones)
  const removed: NameRecord[] = []
  const added: NameRecord[] = []
  for (const each of changes) {
    const own = zones.at(each.name)
    if (each.class === classes.IN) {
      const type = recordTypes.find(known => known === each.type)
      if (type === undefined || isProtected(each.name)) return codes.refused
      if (each.data === null) return codes.badFormat
      const record: NameRecord = { name: each.name, type, data: each.data, ttl: each.ttl }
      const staying = [
        ...own.filter(other => !removed.includes(other)),
        ...added.filter(other => other.name === each.name),
      ]
      // An alias stands alone at its name: what would stand beside it is passed over. Source: RFC 2136, 3.4.2.2.
      if (staying.some(other => (other.type === 'CNAME') !== (type === 'CNAME'))) continue
      if (type === 'CNAME') removed.push(...own.filter(other => other.type === 'CNAME'))
      added.push(record)
    } else if (each.class === classes.ANY) {
      removed.push(...own.filter(other => each.type === 'ANY' || other.type === each.type))
    } else if (each.class === classes.NONE) {
      removed.push(...own.filter(other => other.type === each.type && sameData(other.data, each.data)))
    } else return codes.badFormat
  }
  zones.change(added, removed)
  return 0
}

const sameData = (one: string, other: string | null) => other !== null && plain(one) === plain(other)

/** The code of the first prerequisite that does not hold; 0 where all do. Source: RFC 2136, 3.2. */
function unmet(zones: Zones, prerequisites: readonly Line[]): number {
  for (const each of prerequisites) {
    const own = zones.at(each.name)
    const isThere = own.length > 0 || zones.names.includes(each.name)
    const set = own.filter(other => other.type === each.type)
    if (each.class === classes.ANY) {
      if (each.type === 'ANY' ? !isThere : set.length === 0) return each.type === 'ANY' ? codes.noName : codes.noSet
    } else if (each.class === classes.NONE) {
      if (each.type === 'ANY' ? isThere : set.length > 0) return each.type === 'ANY' ? codes.nameThere : codes.setThere
    } else {
      // Given with data: the set is just what is given.
      const wanted = prerequisites.filter(
        other => other.class === classes.IN && other.name === each.name && other.type === each.type,
      )
      const isSame =
        set.length === wanted.length && wanted.every(want => set.some(has => sameData(has.data, want.data)))
      if (!isSame) return codes.noSet
    }
  }
  return 0
}
