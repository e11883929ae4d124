import {
  isLetBy,
  modeClass,
  type AccessEntry,
  type FileIdentity,
  type FileOperation,
  type FileOwner,
  type ModeClass,
} from './modeBits'

/** Of an entry: whose a file is, its group, or whoever asks; else `uid:` or `gid:` with a number. Source: RFC 8881, 6.2.1.5. */
const specialWhos = ['OWNER@', 'GROUP@', 'EVERYONE@'] as const

/** What decided at a file: the entry of its list, or its mode where it has none. */
export interface FileVerdict {
  readonly allowed: boolean
  readonly decidedBy: 'mode-bits' | 'acl'
  readonly modeClass: ModeClass
  /** Of the entry that decided; null where none is for them. Absent where no list counts. */
  readonly entryIndex?: number | null
}

const isAbout = ({ may }: AccessEntry, operation: FileOperation) => may === 'both' || may === operation

/** Whether an entry is for somebody. An owner is everyone too, and so is a member of the group. */
export function isFor({ who }: Pick<AccessEntry, 'who'>, { uid, gid, groups }: FileIdentity, file: FileOwner): boolean {
  if (who === 'EVERYONE@') return true
  if (who === 'OWNER@') return uid === file.uid
  const isIn = (group: number) => gid === group || groups.includes(group)
  if (who === 'GROUP@') return isIn(file.gid)
  const { sort, id } = readWho(who) ?? {}
  return id !== undefined && (sort === 'uid' ? uid === id : isIn(id))
}

/** A number that an entry names; undefined for what names none. */
export function readWho(who: string): { readonly sort: 'uid' | 'gid'; readonly id: number } | undefined {
  const [, sort, digits] = /^(uid|gid):(\d{1,10})$/.exec(who) ?? []
  const id = Number(digits)
  if (sort === undefined || id > 4_294_967_294) return undefined
  return { sort: sort === 'uid' ? 'uid' : 'gid', id }
}

export const isWho = (who: string): boolean => specialWhos.some(each => each === who) || readWho(who) !== undefined

/**
 * The entry that decides for somebody: the first that is for them and about what they want, whatever stands behind it. Without one they
 * are refused. Source: RFC 8881, 6.2.1; the order in which discretionary lists are evaluated over SMB is the same.
 */
const decidingEntry = (
  acl: readonly AccessEntry[],
  identity: FileIdentity,
  file: FileOwner,
  operation: FileOperation,
): number | undefined => {
  const index = acl.findIndex(entry => isAbout(entry, operation) && isFor(entry, identity, file))
  return index === -1 ? undefined : index
}

/** Whether somebody may read or write a file, by its access list where it has one, else by its mode. Neither stops uid 0. */
export function judgeFile(file: FileOwner, identity: FileIdentity, operation: FileOperation): FileVerdict {
  const counts = modeClass(identity, file)
  const { acl = [] } = file
  if (counts === 'superuser' || acl.length === 0)
    return { allowed: isLetBy(file.mode, counts, operation), decidedBy: 'mode-bits', modeClass: counts }
  const index = decidingEntry(acl, identity, file, operation)
  const allowed = index !== undefined && acl[index]?.kind === 'allow'
  return { allowed, decidedBy: 'acl', modeClass: counts, entryIndex: index ?? null }
}

/** Entries that decide for nobody: everything that they are about is decided for everyone before them. */
export function unreached(acl: readonly AccessEntry[]): number[] {
  const decided = { read: false, write: false }
  return acl.flatMap((entry, index) => {
    const about = (['read', 'write'] as const).filter(each => isAbout(entry, each))
    const isUnreached =
      about.every(each => decided[each]) ||
      acl.slice(0, index).some(before => before.who === entry.who && about.every(each => isAbout(before, each)))
    if (entry.who === 'EVERYONE@') for (const each of about) decided[each] = true
    return isUnreached ? [index] : []
  })
}

/** Whom an entry is for, in words. */
export function whoWords(who: string): string {
  if (who === 'OWNER@') return 'the owner'
  if (who === 'GROUP@') return 'the group'
  return who === 'EVERYONE@' ? 'everyone' : who.replace(':', ' ')
}

const mayWords = { read: 'read', write: 'write', both: 'read and write' } as const

/** `may read and write`, `may not write`. */
export const entryWords = ({ kind, may }: Pick<AccessEntry, 'kind' | 'may'>): string =>
  kind === 'allow' ? `may ${mayWords[may]}` : `may not ${may === 'both' ? 'read nor write' : mayWords[may]}`

/** What a file will be that somebody makes in a directory: theirs, of their group or the one that is handed on, with the entries that reach it. */
export function madeIn(directory: FileOwner, { uid, gid }: Pick<FileIdentity, 'uid' | 'gid'>): FileOwner {
  const { acl = [], mode } = directory
  const isHandedOn = (Number.parseInt(mode, 8) & 0o2000) !== 0
  return { uid, gid: isHandedOn ? directory.gid : gid, mode: '0644', acl: acl.filter(({ isInherited }) => isInherited) }
}

/** The file with an entry before all others of its list. */
export const withEntry = (file: FileOwner, entry: AccessEntry): FileOwner => ({
  ...file,
  acl: [entry, ...(file.acl ?? [])],
})

export const withoutEntry = (file: FileOwner, index: number): FileOwner => ({
  ...file,
  acl: (file.acl ?? []).filter((_, at) => at !== index),
})
