import { plainAddress, reverseName } from '@/core/network'
import type { Entry, Store } from '../fleet'

export const recordTypes = ['A', 'AAAA', 'CNAME', 'PTR'] as const
export type RecordType = (typeof recordTypes)[number]
export interface NameRecord {
  /** In small letters, without the final dot. */
  readonly name: string
  readonly type: RecordType
  readonly data: string
  readonly ttl: number
}
/** As an earlier version has kept them. */
interface EarlierRecord {
  readonly kind: 'forward' | 'reverse'
  readonly name: string
  readonly address: string
}

const collection = 'nameRecords'
const defaultTtl = 300

/** The records of a server's zones. */
export class Zones {
  constructor(
    private readonly store: Store,
    readonly names: readonly string[],
  ) {
    // What an earlier version has kept is taken over once.
    if (store.count(collection) > 0) return
    const earlier = store.all<EarlierRecord>('names').map(today)
    store.commit(earlier.map(value => ({ collection, id: idOf(value), value })))
  }

  /** The zone that a name lies in, the deepest of ours; undefined where it is none of ours. */
  zoneOf(name: string): string | undefined {
    return [...this.names].sort((a, b) => b.length - a.length).find(zone => name === zone || name.endsWith(`.${zone}`))
  }

  /** Grows with every change, as secondaries look for. Source: RFC 1982. */
  get serial(): number {
    return this.store.one<{ value: number }>(`${collection}/serial`, 'serial')?.value ?? 1
  }

  all(): NameRecord[] {
    return this.store.all<NameRecord>(collection)
  }

  at(name: string): NameRecord[] {
    return this.all().filter(each => each.name === name)
  }

  /** Whether something stands below a name, so that the name itself is there although it has no record. Source: RFC 4592, 2.2.2. */
  hasBelow(name: string): boolean {
    return this.all().some(each => each.name.endsWith(`.${name}`))
  }

  /** Puts other records of some types at a name. */
  replace(
    name: string,
    types: readonly RecordType[],
    records: readonly { readonly type: RecordType; readonly data: string }[],
  ): void {
    const own = plain(name)
    const gone = this.at(own).filter(each => types.includes(each.type))
    this.change(
      records.map(each => ({ ...each, name: own, ttl: defaultTtl })),
      gone,
    )
  }

  /** Adds and removes at once: all of it, or nothing. */
  change(added: readonly NameRecord[], removed: readonly NameRecord[]): void {
    const entries = new Map<string, Entry>()
    for (const each of removed) entries.set(idOf(each), { collection, id: idOf(each), value: null })
    for (const each of added) entries.set(idOf(each), { collection, id: idOf(each), value: each })
    if (entries.size === 0) return
    const value = { value: (this.serial + 1) >>> 0 }
    this.store.commit([...entries.values(), { collection: `${collection}/serial`, id: 'serial', value }])
  }
}

/** A name as it is compared: in small letters, without the final dot. Source: RFC 4343. */
export const plain = (name: string) => name.toLowerCase().replace(/\.$/, '')

const idOf = ({ name, type, data }: NameRecord) => `${name}/${type}/${data.toLowerCase()}`
function today({ kind, name, address }: EarlierRecord): NameRecord {
  const data = plainAddress(address) ?? address
  return kind === 'reverse'
    ? { name: reverseName(data), type: 'PTR', data: name, ttl: defaultTtl }
    : { name: plain(name), type: data.includes(':') ? 'AAAA' : 'A', data, ttl: defaultTtl }
}
