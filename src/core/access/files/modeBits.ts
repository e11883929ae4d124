/** Who somebody is to files: numbers. */
export interface FileIdentity {
  readonly uid: number
  readonly gid: number
  readonly groups: readonly number[]
}

/** One entry of an access list. Source: RFC 8881, 6.2.1, as far as reading and writing go. */
export interface AccessEntry {
  readonly kind: 'allow' | 'deny'
  readonly who: string
  readonly may: 'read' | 'write' | 'both'
  /** Whether what is made in the directory has it too (FILE_INHERIT and DIRECTORY_INHERIT, 6.2.1.4). */
  readonly isInherited?: boolean | undefined
}

/** Whose a file is, and what each class may: four octal digits. */
export interface FileOwner {
  readonly uid: number
  readonly gid: number
  readonly mode: string
  /** Its access list; where it has entries they count, and not the mode. */
  readonly acl?: readonly AccessEntry[]
}

export type FileOperation = 'read' | 'write'
export type ModeClass = 'owner' | 'group' | 'other' | 'superuser'

const shift = { owner: 6, group: 3, other: 0 } as const
const bitOf = { read: 4, write: 2, execute: 1 } as const

/** The one class that counts for somebody. Source: POSIX.1-2024, 4.7, File Access Permissions. */
export function modeClass({ uid, gid, groups }: FileIdentity, file: FileOwner): ModeClass {
  if (uid === 0) return 'superuser'
  if (uid === file.uid) return 'owner'
  return gid === file.gid || groups.includes(file.gid) ? 'group' : 'other'
}

/** The bits of a class, 0 to 7; all of them for uid 0, whom modes do not stop. */
export const bitsFor = (mode: string, of: ModeClass): number =>
  of === 'superuser' ? 7 : (Number.parseInt(mode, 8) >> shift[of]) & 7

export const isLetBy = (mode: string, of: ModeClass, operation: FileOperation): boolean =>
  (bitsFor(mode, of) & bitOf[operation]) !== 0

/**
 * A mode by which a class is let do something, or no longer. Who writes into a directory has to enter and to see it too: only the one
 * bit would be of use to nobody.
 */
export function withBit(
  mode: string,
  of: Exclude<ModeClass, 'superuser'>,
  operation: FileOperation,
  isSet: boolean,
): string {
  const bit = (isSet ? (operation === 'write' ? 7 : 5) : bitOf[operation]) << shift[of]
  const now = Number.parseInt(mode, 8)
  return (isSet ? now | bit : now & ~bit).toString(8).padStart(4, '0')
}

/** Three letters for a class: `rw-`; `rws` where the group is handed on to what is made within. */
export function modeLetters(mode: string, of: Exclude<ModeClass, 'superuser'>): string {
  const bits = bitsFor(mode, of)
  const special = Number.parseInt(mode, 8) >> 9
  const isSpecial = (special & { owner: 4, group: 2, other: 1 }[of]) !== 0
  const [plain, marked] = of === 'other' ? ['x', 't'] : ['x', 's']
  const last = (bits & 1) === 0 ? (isSpecial ? marked.toUpperCase() : '-') : isSpecial ? marked : plain
  return `${(bits & 4) === 0 ? '-' : 'r'}${(bits & 2) === 0 ? '-' : 'w'}${last}`
}
