import { FolderSums, type FolderSum } from '@/core/filetree'
import { storable } from '@/core/input'
import { copiedText, copyInto } from '../copyInto'
import { inTransaction, row, rows, run, type Scope } from '../database'
import { scanParts } from './scanParts'

const columns = 'scan_folders (scan_id, id, parent_id, name, files, bytes, folders, newest_at)'

function* lines(scanId: string, folders: readonly FolderSum[]): Generator<string> {
  for (const { id, parentId, name, files, bytes, folders: within, newestAt } of folders) {
    const newest = newestAt === 0 ? '\\N' : new Date(newestAt).toISOString()
    yield `${[scanId, id, parentId ?? '\\N', copiedText(storable(name)), files, bytes, within, newest].join('\t')}\n`
  }
}

/** Keeps what lies below each folder of a walk, in place of those of the walks before it; safe to repeat. */
export async function keepFolders(scope: Scope, scanId: string): Promise<void> {
  await inTransaction(scope.database, async inside => {
    await run(
      inside,
      'delete from scan_folders where scan_id in (select id from file_scans where share_id = (select share_id from file_scans where id = $1))',
      [scanId],
    )
    const sums = new FolderSums()
    for await (const part of scanParts(inside, scanId)) await copyInto(inside, columns, lines(scanId, sums.add(part)))
    await copyInto(inside, columns, lines(scanId, sums.end()))
  })
}

/** A folder as it is listed in the one above it. */
export interface FolderLine {
  readonly id: number
  readonly name: string
  readonly files: number
  readonly bytes: number
  readonly folders: number
  readonly newestAt: string | null
}

/** Folders that lie in one of a walk, the largest first: a page of them, and how many there are. */
export async function foldersIn(
  scope: Scope,
  scanId: string,
  parentId: number,
  { offset, limit }: { readonly offset: number; readonly limit: number },
): Promise<{ readonly total: number; readonly items: readonly FolderLine[] }> {
  const parent = await row<{ readonly folders: number }>(
    scope,
    'select folders from scan_folders where scan_id = $1 and id = $2',
    [scanId, parentId],
  )
  const items = await rows<Omit<FolderLine, 'newestAt'> & { readonly newest_at: Date | null }>(
    scope,
    `select id, name, files::float8 as files, bytes::float8 as bytes, folders, newest_at from scan_folders
     where scan_id = $1 and parent_id = $2 order by bytes desc, id offset $3 limit $4`,
    [scanId, parentId, offset, limit],
  )
  return {
    total: parent?.folders ?? 0,
    items: items.map(({ newest_at, ...folder }) => ({ ...folder, newestAt: newest_at?.toISOString() ?? null })),
  }
}
