import { seededUuid, type Store } from '../fleet'

/** An entry of the directory: each attribute once or several times. */
export interface DirectoryEntry {
  readonly dn: string
  readonly attributes: Readonly<Record<string, readonly string[]>>
  /** Of who may sign in. */
  readonly password?: string
}

/** Who somebody is to a file server that belongs to the directory. */
export interface KnownAccount {
  readonly account: string
  readonly uid: number
  readonly gid: number
  readonly gids: readonly number[]
  /** The account's own entryUUID, and those of all groups that it is in. */
  readonly ids: ReadonlySet<string>
}

const collection = 'directory'
export const baseDn = 'dc=marrowfield,dc=example'
const spelled = (dn: string) => dn.toLowerCase().replace(/\s*([,=])\s*/g, '$1')
/** Where a directory gives no number. */
const nobody = 65_534

/** What a directory keeps: names below names, with attributes. Sources: RFC 4512, RFC 2307, RFC 4530. */
export class DirectoryTree {
  readonly #byDn = new Map<string, DirectoryEntry>()

  constructor(private readonly store: Store) {
    for (const entry of store.all<DirectoryEntry>(collection)) this.#byDn.set(spelled(entry.dn), entry)
  }

  all(): readonly DirectoryEntry[] {
    return [...this.#byDn.values()]
  }

  at(dn: string): DirectoryEntry | undefined {
    return this.#byDn.get(spelled(dn))
  }

  /** Puts entries; each keeps the entryUUID that it has, or is given one. */
  put(entries: readonly DirectoryEntry[]): void {
    const whole = entries.map(entry => {
      const entryUUID = this.at(entry.dn)?.attributes['entryUUID'] ?? [seededUuid('directory', spelled(entry.dn))]
      return { ...entry, attributes: { entryUUID, ...entry.attributes } }
    })
    this.store.commit(whole.map(value => ({ collection, id: spelled(value.dn), value })))
    for (const entry of whole) this.#byDn.set(spelled(entry.dn), entry)
  }

  remove(dn: string): void {
    this.store.commit([{ collection, id: spelled(dn), value: null }])
    this.#byDn.delete(spelled(dn))
  }

  /** Whether a name and a password open it; an account that is locked opens nothing. */
  opens(dn: string, password: string): boolean {
    const entry = this.at(dn)
    return entry?.password !== undefined && entry.password === password && !isLocked(entry)
  }

  /** Makes an account of its own for a file server, with the names by which tickets for it are asked (RFC 4120). @returns why not */
  join(dn: string, password: string, server: string): string | undefined {
    if (!this.opens(dn, password)) return 'invalid credentials'
    const isAdministrator = this.groupsOf(this.at(dn)).some(each =>
      each.attributes['cn']?.includes('directory-operators'),
    )
    if (!isAdministrator) return 'insufficient access rights'
    this.put([{ dn: this.computerDn(server), attributes: computer(server) }])
    return undefined
  }

  leave(server: string): void {
    this.remove(this.computerDn(server))
  }

  computerDn(server: string): string {
    return `cn=${server.split('.')[0] ?? server},ou=computers,${baseDn}`
  }

  /** Somebody by account name, as a file server looks them up; undefined where they may not sign in. */
  account(name: string): KnownAccount | undefined {
    const entry = this.all().find(
      each => each.attributes['uid']?.some(uid => uid.toLowerCase() === name.toLowerCase()) === true,
    )
    if (entry === undefined || isLocked(entry)) return undefined
    const groups = this.groupsOf(entry)
    const number = (attributes: DirectoryEntry['attributes'], key: string) => Number(attributes[key]?.[0] ?? nobody)
    return {
      account: entry.attributes['uid']?.[0] ?? name,
      uid: number(entry.attributes, 'uidNumber'),
      gid: number(entry.attributes, 'gidNumber'),
      gids: groups.flatMap(({ attributes }) => (attributes['gidNumber'] ?? []).map(Number)),
      ids: new Set([entry, ...groups].flatMap(({ attributes }) => attributes['entryUUID'] ?? [])),
    }
  }

  /** The groups that an entry is in, also by way of others. */
  groupsOf(entry: DirectoryEntry | undefined): DirectoryEntry[] {
    const found = new Set<DirectoryEntry>()
    const look = (dn: string) => {
      for (const group of this.all()) {
        const isIn = (group.attributes['member'] ?? []).some(each => spelled(each) === spelled(dn))
        if (!isIn || found.has(group)) continue
        found.add(group)
        look(group.dn)
      }
    }
    if (entry !== undefined) look(entry.dn)
    return [...found]
  }
}

const isLocked = ({ attributes }: DirectoryEntry) => (attributes['pwdAccountLockedTime'] ?? []).length > 0
const computer = (server: string) => ({
  objectClass: ['top', 'device'],
  cn: [server.split('.')[0] ?? server],
  servicePrincipalName: [`cifs/${server}`, `nfs/${server}`, `host/${server}`],
})
