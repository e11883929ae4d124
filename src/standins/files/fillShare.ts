import { headOf, type FileKind } from '@/core/filetree'
import { badValue, conflict, type SimulatedArray } from '../array'
import { seededHex, seededNumber } from '../fleet'
import { reserveFiles, type FileEntry } from './FileSystems'
import { readFileSystem } from './shares'

const mebibyte = 1024 ** 2
const day = 86_400_000
const mostFiles = 4000
const folders = [
  '2023/autumn',
  '2024/spring',
  '2025/loans',
  '2026/skulls',
  '2026/skulls/rescans',
  'exports',
  'old scanner',
]
/** What stands in a folder of a museum: by its name's end, what it is, and how large (mebibytes). */
const sorts: readonly (readonly [end: string, kind: FileKind | undefined, from: number, to: number])[] = [
  ['tif', 'picture', 20, 180],
  ['tif', 'picture', 20, 180],
  ['dat', undefined, 1, 40],
  ['pdf', 'document', 1, 12],
  ['zip', 'archive', 80, 600],
  ['mkv', 'video', 200, 900],
  // Named as what it is not.
  ['tif', 'audio', 4, 9],
]

/**
 * Fills a share with a tree such as one that has grown over years: owners, ages, sizes and kinds of all sorts, names in several scripts,
 * some files that are there twice, some whose names say another kind. It follows from the share's name alone. Nothing of it but each
 * file's first bytes was ever written.
 */
export function fillShare(array: SimulatedArray, shareName: string, count: number): number {
  const refuse = (why: string, remedy: string) => conflict('The share was not filled.', why, remedy)
  const share = array.all('fileShares').find(each => each.name === shareName)
  if (share === undefined) throw refuse(`${array.model.name} shares no ${shareName}.`, 'Name one that it shares.')
  if (!Number.isInteger(count) || count < 1 || count > mostFiles)
    throw badValue('The share was not filled.', `It takes 1 to ${mostFiles} files at once.`, 'Give another number.')
  const { disk, superblock } = readFileSystem(array, share.fileSystemId)
  if (superblock === undefined) throw refuse('It has no file system.', 'Make it anew.')
  const first = superblock.files.length
  const made = Array.from({ length: count }, (_, at) => fileOf(shareName, first + at, array.clock.now()))
  if (!reserveFiles(disk, superblock, made))
    throw refuse('It has no room for so many.', 'Give fewer, or a larger share.')
  return made.length
}

const pick = <T>(all: readonly T[], seed: string, what: string, fallback: T): T =>
  all[seededNumber(seed, what, 0, all.length - 1)] ?? fallback

function fileOf(shareName: string, index: number, now: number): Omit<FileEntry, 'at'> {
  // Every twelfth is there a second time, as copies are: the same bytes under another name.
  const isCopy = index % 12 === 11
  const seed = `${shareName}/${isCopy ? index - 5 : index}`
  const [end, kind, from, to] = pick(sorts, seed, 'sort', ['dat', undefined, 1, 40] as const)
  const length = seededNumber(seed, 'size', from, to) * mebibyte - seededNumber(seed, 'rest', 0, 900_000)
  const script = pick(['specimen', 'Schädel', '標本', 'pièce', 'ομοίωμα'], seed, 'script', 'specimen')
  const uid = 2001 + seededNumber(seed, 'owner', 0, 6) ** 2
  const age = seededNumber(seed, 'age', 0, 40) ** 2 * day
  const name = `${script}-${`${index}`.padStart(4, '0')}${isCopy ? ' (copy)' : ''}.${end}`
  return {
    path: `${isCopy ? 'exports' : pick(folders, seed, 'folder', 'exports')}/${name}`,
    length,
    marks: { uid, gid: 300, mode: '0640' },
    modifiedAt: now - age - seededNumber(seed, 'hour', 0, 86_399) * 1000,
    head: `${kind === undefined ? '' : headOf(kind)}${seededHex(seed, 'head', 24)}`,
  }
}
