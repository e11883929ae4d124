import { headAt, type DiskBytes, type Superblock } from './FileSystems'
import type { Listed, ListWanted } from './served'

const inOrder = (a: string, b: string) => Buffer.compare(Buffer.from(a), Buffer.from(b))

/** A page of the files below a directory, in the order of their paths, behind one of them. */
export function listed(
  disk: DiskBytes,
  { files: all }: Superblock,
  directory: string,
  { after, limit }: Pick<ListWanted, 'after' | 'limit'>,
): Listed {
  const above = directory === '' ? '' : `${directory}/`
  const behind = all
    .filter(each => each.path.startsWith(above) && inOrder(each.path.slice(above.length), after) > 0)
    .sort((a, b) => inOrder(a.path, b.path))
  const files = behind.slice(0, limit).map(each => ({
    path: each.path.slice(above.length),
    uid: each.marks?.uid ?? 0,
    gid: each.marks?.gid ?? 0,
    bytes: each.length,
    modifiedAt: each.modifiedAt ?? 0,
    head: headAt(disk, each),
  }))
  return { files, isLast: behind.length <= limit }
}
