import { ageDays, readSlice, sizeBytes } from '@/core/filetree'
import { formatBytes } from '@/core/units'

const bytesWords = (bytes: number) => formatBytes(BigInt(bytes))

/** What a part of a report is, in words. @param owners names by uid */
export function sliceWords(text: string, owners: Readonly<Record<string, string>>): string {
  const slice = readSlice(text)
  switch (slice?.of) {
    case 'owner':
      return `Of ${owners[`${slice.uid}`] ?? `uid ${slice.uid}`}`
    case 'kind':
      return slice.kind === null ? 'Of a kind that is not known' : `By their first bytes: ${slice.kind}`
    case 'age': {
      const [from, to] = [ageDays[slice.band - 1], ageDays[slice.band]]
      if (to === undefined) return `Not written for ${Math.round((from ?? 0) / 365)} years and more`
      return from === undefined ? `Written in the last ${to} days` : `Last written ${from} to ${to} days ago`
    }
    case 'size': {
      const [from, to] = [sizeBytes[slice.band - 1], sizeBytes[slice.band]]
      if (to === undefined) return `${bytesWords(from ?? 0)} and larger`
      return from === undefined ? `Smaller than ${bytesWords(to)}` : `${bytesWords(from)} to ${bytesWords(to)}`
    }
    case 'folder':
      return slice.path === '' ? 'At the root itself' : `In ${slice.path}`
    case 'twins':
      return `Of ${bytesWords(slice.bytes)} each`
    case 'since':
      return 'Written since the walk before'
    case 'misnamed':
      return 'Named as another kind than they are'
    default:
      return 'The largest'
  }
}
