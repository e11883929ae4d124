import type { FileShareEntity, SimulatedArray } from '../array'
import { snapshotDiskOf } from './diskOf'
import { readSuperblock, type DiskBytes, type Superblock } from './FileSystems'
import { readFileSystem } from './shares'

/** Within a share, where it shows snapshots: each under its name, with the files that it holds. */
export const earlier = '.earlier'

interface FilesAt {
  readonly disk: DiskBytes
  /** Undefined where nothing stands there. */
  readonly superblock: Superblock | undefined
  /** The path among these files. */
  readonly path: string
  /** Held by a snapshot: nobody writes there. */
  readonly isPast: boolean
}

/** Of which files a path within a share is: those of now, or those that a snapshot holds. */
export function filesAt(array: SimulatedArray, share: FileShareEntity, path: string): FilesAt {
  const now = readFileSystem(array, share.fileSystemId)
  if (path !== earlier && !path.startsWith(`${earlier}/`)) return { ...now, path, isPast: false }
  const [, name = '', ...rest] = path.split('/')
  const { volumeId } = array.one('fileSystems', share.fileSystemId)
  const snapshot = array
    .all('snapshots')
    .find(each => each.volumeId === volumeId && each.name === name && each.isConsistent)
  if (share.showsSnapshots !== true || snapshot === undefined)
    return { disk: now.disk, superblock: undefined, path, isPast: true }
  const disk = snapshotDiskOf(array, snapshot)
  return { disk, superblock: readSuperblock(disk), path: rest.join('/'), isPast: true }
}
