import type { FileServiceEntity, FileShareEntity, ShareGrantEntity } from '../array'
import type { KnownAccount } from '../people'
import type { FileMarks } from './FileSystems'
import type { Verdict } from './fileRights'
import { marksLet } from './rootRights'

/** What each right lets somebody do, as bits: 1 reads, 2 writes. */
const bits: Readonly<Record<ShareGrantEntity['right'], number>> = { none: 0, read: 1, change: 3, full: 3 }

/** The list of a share: its own entries, and those of its server for all shares. */
export const standing = ({
  service,
  share,
}: {
  readonly service: Pick<FileServiceEntity, 'grants'>
  readonly share: Pick<FileShareEntity, 'grants'>
}): readonly ShareGrantEntity[] => [...(share.grants ?? []), ...(service.grants ?? [])]

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
  const isLet = marksLet(marks, { uid: account.uid, gids: [account.gid, ...account.gids] }, isWrite)
  return isLet ? { may: true, as } : { may: false, why: 'access denied' }
}
