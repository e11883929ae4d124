import type { FileMarks } from './FileSystems'

interface Caller {
  readonly uid: number
  readonly gids: readonly number[]
}

/** Whether what has these marks lets somebody read or write it: by its list where it has one, else by the digits of its mode. */
export function marksLet(marks: FileMarks, { uid, gids }: Caller, isWrite: boolean): boolean {
  if (uid === 0) return true
  const { list = [] } = marks
  return list.length === 0 ? digitsLet(marks, { uid, gids }, isWrite) : listLets(marks, list, { uid, gids }, isWrite)
}

/** Bits are taken from what is asked for as entries allow them; the first that refuses one of those left ends it. */
function listLets(
  { uid: owner, gid: group }: FileMarks,
  list: NonNullable<FileMarks['list']>,
  { uid, gids }: Caller,
  isWrite: boolean,
): boolean {
  const mine = new Set<string>([
    'EVERYONE@',
    `uid:${uid}`,
    ...gids.map(each => `gid:${each}`),
    ...(uid === owner ? ['OWNER@'] : []),
    ...(gids.includes(group) ? ['GROUP@'] : []),
  ])
  let left = isWrite ? 2 : 1
  for (const { isRefusal, who, bits } of list) {
    if (!mine.has(who) || (bits & left) === 0) continue
    if (isRefusal) return false
    left &= ~bits
    if (left === 0) return true
  }
  return false
}

function digitsLet(marks: FileMarks, { uid, gids }: Caller, isWrite: boolean): boolean {
  const [owner = 0, group = 0, other = 0] = [...marks.mode].slice(-3).map(Number)
  const own = uid === marks.uid ? owner : gids.includes(marks.gid) ? group : other
  return isWrite ? [2, 3, 6, 7].includes(own) : own >= 4
}

/** Of what somebody makes in a directory: it may hand its group on (POSIX.1-2024, open), and entries of its list. */
export function marksWithin(directory: FileMarks | undefined, { uid, gid }: Pick<FileMarks, 'uid' | 'gid'>): FileMarks {
  const isGroupHandedOn = (Number.parseInt(directory?.mode ?? '0', 8) & 0o2000) !== 0
  const list = (directory?.list ?? []).filter(({ isHandedDown }) => isHandedDown)
  return {
    ...{ uid, gid: isGroupHandedOn ? (directory?.gid ?? gid) : gid, mode: '0644' },
    ...(list.length === 0 ? {} : { list }),
  }
}
