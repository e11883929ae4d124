import { judgeWrite, quotaIndex, readQuotas } from '@/core/filetree'
import type { Share } from '@/core/estate'
import { formatBytes } from '@/core/units'

/** What the quotas at a share's root leave to somebody, from what its system says has been written. */
export function quotaOf(share: Share) {
  const index = quotaIndex(readQuotas(share.quotas))
  const used = new Map(
    share.quotaUsage.map(({ index: at, key, usedBytes, overSoftSince }) => [
      `${at}/${key}`,
      { bytes: BigInt(usedBytes), overSoftSince: overSoftSince === null ? null : Date.parse(overSoftSince) },
    ]),
  )
  return (uid: number, gid: number) => {
    const { leftBytes, decidedBy } = judgeWrite(index, key => used.get(key), {
      ...{ path: '/a', uid, gid, addedBytes: 0n, at: 0 },
    })
    return leftBytes === null || decidedBy === null
      ? undefined
      : { leftBytes, words: `${formatBytes(leftBytes)} left by quota ${decidedBy.index + 1}` }
  }
}
