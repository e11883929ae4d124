import type { ShareRights } from '@/core/access'
import type { Share } from '@/core/estate'

const noRules: ShareRights['rules'] = []
export const speaks = ({ protocols }: Share, family: 'NFS' | 'SMB') => protocols.some(each => each.startsWith(family))

/** What decides of a share over NFS; of one that is not served so no rule is for anybody. */
export const rightsOf = (share: Share): ShareRights => ({
  rules: speaks(share, 'NFS') ? share.rules : noRules,
  root: { uid: share.ownerUid, gid: share.ownerGid, mode: share.mode, acl: share.acl },
})
