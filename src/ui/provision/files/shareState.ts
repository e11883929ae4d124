import type { FileService, Share } from '@/core/estate'
import { quotaOf } from './quotaOf'

/** What of a share and its service counts for every request, whoever asks. @param service undefined where it is not known: nothing answers then */
export const shareState = (share: Share, service: Pick<FileService, 'joinedTo' | 'instances'> | undefined) => ({
  name: share.name,
  protocols: share.protocols,
  joinedTo: service?.joinedTo ?? null,
  addresses: (service?.instances ?? []).flatMap(({ address, standsOn }) => (standsOn === null ? [] : [address])),
  freeBytes: BigInt(share.sizeBytes) - BigInt(share.usedBytes),
  quotaOf: quotaOf(share),
})
