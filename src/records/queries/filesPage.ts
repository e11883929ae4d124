import { readSlice, SliceReader } from '@/core/filetree'
import type { FilesPage } from '@/core/views'
import type { Scope } from '../database'
import { scanParts, scansOf } from '../files'
import { object, objects } from '../objects'

const mostFiles = 200

/** What the walks through a share have found, and the largest files of one part of it. @param text of the slice, as its address says it */
export async function filesPage(scope: Scope, shareId: string, text: string): Promise<FilesPage | undefined> {
  const share = await object(scope, 'shares', shareId)
  const service = share === undefined ? undefined : await object(scope, 'fileServices', share.fileServiceId)
  if (share === undefined || service === undefined) return undefined
  const [scan, before] = await scansOf(scope, shareId, 2)
  const slice = readSlice(text) ?? { of: 'all' as const }
  const reader = new SliceReader(slice, scan === undefined ? 0 : Date.parse(scan.at), mostFiles)
  if (scan !== undefined) for await (const part of scanParts(scope, scan.id)) reader.add(part)
  const uids = scan?.report.owners.map(({ uid }) => uid) ?? []
  const people =
    uids.length === 0 ? [] : await objects(scope, 'principals', { where: { number: uids, sort: 'person' } })
  return {
    ...{ share, service, scan: scan ?? null, before: before ?? null },
    owners: Object.fromEntries(people.map(({ number, name }) => [`${number ?? ''}`, name])),
    slice: { text: readSlice(text) === undefined ? 'all' : text, ...reader.found() },
  }
}
