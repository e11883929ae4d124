import {
  badValue,
  conflict,
  type ExportRuleEntity,
  type FileShareEntity,
  type FileSystemEntity,
  type ShareGrantEntity,
  type ShareLimitsEntity,
  type SimulatedArray,
} from '../array'
import { seededHex } from '../fleet'
import { diskOf } from './diskOf'
import { speaksSmb } from './fileServices'
import { noLimits, overSoft } from './limits'
import { format, markRoot, readSuperblock, usedBytes, type FileMarks, type Superblock } from './FileSystems'

/** Makes a file system on a volume that no host sees and that carries none. */
export function makeFileSystem(
  array: SimulatedArray,
  name: string,
  description: string,
  volumeId: string,
): FileSystemEntity {
  const refuse = (why: string, remedy: string) => conflict(`${name} was not made.`, why, remedy)
  const volume = array.one('volumes', volumeId)
  if (array.all('fileSystems').some(each => each.name === name))
    throw refuse('A file system of that name exists.', 'Choose another name.')
  if (array.all('fileSystems').some(each => each.volumeId === volumeId))
    throw refuse(`${volume.name} carries one already.`, 'Choose another volume.')
  if (array.all('connections').some(each => each.volumeId === volumeId))
    throw refuse(`${volume.name} is shown to hosts.`, 'Take it from them first.')
  const disk = diskOf(array, volumeId)
  if (readSuperblock(disk) !== undefined)
    throw refuse('A file system of a host stands on the volume.', 'Choose an empty volume.')
  format(
    disk,
    'xfs',
    name.slice(0, 12),
    seededHex('file system', `${array.model.serial}/${name}/${array.clock.now()}`, 32),
    rootOfNobody,
  )
  const made = { id: array.nextId('fileSystems', name), name, description, volumeId }
  array.store.commit([array.entry('fileSystems', made)])
  return made
}

const rootOfNobody: FileMarks = { uid: 0, gid: 0, mode: '0755' }

export function removeFileSystem(array: SimulatedArray, id: string): void {
  const fileSystem = array.one('fileSystems', id)
  const share = array.all('fileShares').find(each => each.fileSystemId === id)
  if (share !== undefined)
    throw conflict(`${fileSystem.name} was not removed.`, `It is shared as ${share.name}.`, 'Remove the share first.')
  array.store.commit([array.gone('fileSystems', id)])
}

/** What a file system says of itself, from its own bytes. */
export function readFileSystem(array: SimulatedArray, id: string) {
  const disk = diskOf(array, array.one('fileSystems', id).volumeId)
  return { disk, superblock: readSuperblock(disk) }
}

export const usedOf = (superblock: Superblock | undefined): bigint =>
  superblock === undefined ? 0n : usedBytes(superblock)

interface ShareRequest {
  readonly name: string
  readonly description: string
  readonly fileSystemId: string
  readonly fileServiceId: string
  readonly path: string
  readonly protocols: readonly string[]
  readonly rules: readonly ExportRuleEntity[]
  readonly grants: readonly ShareGrantEntity[]
  readonly root: FileMarks
}

export function makeShare(array: SimulatedArray, { root, ...wanted }: ShareRequest): FileShareEntity {
  const service = array.one('fileServices', wanted.fileServiceId)
  const others = array.all('fileShares').filter(each => each.fileServiceId === service.id)
  if (others.some(each => each.path === wanted.path))
    throw conflict(
      `${wanted.name} was not shared.`,
      `${service.name} shares another at ${wanted.path}.`,
      'Choose another path.',
    )
  if (speaksSmb(wanted.protocols)) {
    const twin = others.find(each => speaksSmb(each.protocols) && each.name.toLowerCase() === wanted.name.toLowerCase())
    const why =
      twin !== undefined
        ? `${twin.name} is its name over SMB, where letters are not told apart by size.`
        : service.joinedTo === undefined
          ? `${service.name} belongs to no directory: nobody could sign in.`
          : undefined
    if (why !== undefined)
      throw conflict(`${wanted.name} was not shared.`, why, 'Share it over NFS, or mend that first.')
  }
  setRoot(array, wanted.fileSystemId, root)
  const share = { id: array.nextId('fileShares', wanted.name), ...wanted }
  array.store.commit([array.entry('fileShares', share)])
  return share
}

export function setShare(
  array: SimulatedArray,
  id: string,
  wanted: {
    readonly rules?: FileShareEntity['rules']
    readonly grants?: readonly ShareGrantEntity[]
    readonly root?: FileMarks
    readonly limits?: Partial<Omit<ShareLimitsEntity, 'overSoft'>>
    readonly showsSnapshots?: boolean
  },
): void {
  const share = array.one('fileShares', id)
  if (wanted.root !== undefined) setRoot(array, share.fileSystemId, wanted.root)
  const { rules = share.rules, grants = share.grants ?? [], showsSnapshots = share.showsSnapshots ?? false } = wanted
  if (showsSnapshots && array.blocks.copies === undefined)
    throw badValue('Snapshots were not shown.', 'This system keeps none.', 'Leave that out.')
  const limits = { ...(share.limits ?? noLimits), ...wanted.limits }
  const files = readFileSystem(array, share.fileSystemId).superblock?.files ?? []
  const kept = { ...limits, overSoft: overSoft(limits, files, array.clock.now()) }
  array.store.commit([array.entry('fileShares', { ...share, rules, grants, limits: kept, showsSnapshots })])
}

function setRoot(array: SimulatedArray, fileSystemId: string, root: FileMarks): void {
  if (!/^[0-7]{4}$/.test(root.mode))
    throw badValue('The root was not set.', 'A mode is four octal digits.', 'Give 0755 or another.')
  const { disk, superblock } = readFileSystem(array, fileSystemId)
  if (superblock !== undefined) markRoot(disk, superblock, root)
}

export const removeShare = (array: SimulatedArray, id: string): void =>
  array.store.commit([array.gone('fileShares', array.one('fileShares', id).id)])
