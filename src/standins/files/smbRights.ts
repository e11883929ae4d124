import type { ShareGrantEntity } from '../array'
import type { KnownAccount } from '../people'
import type { FileMarks } from './FileSystems'
import type { Verdict } from './fileRights'

/** What each right lets somebody do, as bits: 1 reads, 2 writes. */
const bits: Readonly<Record<ShareGrantEntity['right'], number>> = { none: 0, read: 1, change: 3, full: 3 }

/** What an account's token carries against the share's list: one entry that refuses ends it, the others add up. */
export function grantedBits(grants: readonly ShareGrantEntity[], { ids }: KnownAccount): number {
  let mask = 0
  for (const { who, right } of grants) {
    if (who !== '*' && !ids.has(who)) continue
    if (right === 'none') return 0
    mask |= bits[right]
  }
  return mask
}

/** Whether an account may read or write what has these marks, over SMB. */
export function mayTouchBySmb(
  grants: readonly ShareGrantEntity[],
  account: KnownAccount,
  marks: FileMarks,
  isWrite: boolean,
): Verdict {
  const wanted = isWrite ? 2 : 1
  if ((grantedBits(grants, account) & wanted) === 0) return { may: false, why: 'access denied by the share' }
  const as = { uid: account.uid, gid: account.gid, groups: account.gids }
  if (account.uid === 0) return { may: true, as }
  const [owner = 0, group = 0, other = 0] = [...marks.mode].slice(-3).map(Number)
  const own = account.uid === marks.uid ? owner : [account.gid, ...account.gids].includes(marks.gid) ? group : other
  const isLet = isWrite ? [2, 3, 6, 7].includes(own) : own >= 4
  return isLet ? { may: true, as } : { may: false, why: 'access denied' }
}
