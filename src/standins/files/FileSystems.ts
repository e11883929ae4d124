import { createHash } from 'node:crypto'
import { seededHex } from '../fleet'

/** The bytes of a disk that a host sees, through its mapping. */
export interface DiskBytes {
  readonly sizeBytes: bigint
  readonly read: (offset: bigint, length: number) => Buffer
  readonly write: (offset: bigint, data: Buffer) => void
}

const mebibyte = 1_048_576
const magic = 'stand-in file system'

/** Whose a file is, and what each class may (four octal digits). */
export interface FileMarks {
  readonly uid: number
  readonly gid: number
  readonly mode: string
  /** An access list, which counts instead of the mode; absent or empty where there is none. */
  readonly list?: readonly ListEntry[]
}

export interface ListEntry {
  readonly isRefusal: boolean
  readonly who: string
  /** 1 reads, 2 writes. */
  readonly bits: number
  /** Set where files that are made in the directory have it too. */
  readonly isHandedDown?: true
}

export interface FileEntry {
  readonly path: string
  readonly at: number
  readonly length: number
  /** Absent for what its own host alone writes. */
  readonly marks?: FileMarks
  /** When it was last written (fleet milliseconds); absent for what its own host alone writes. */
  readonly modifiedAt?: number
  /** Its first bytes, in hexadecimal, where nothing of it was really written. */
  readonly head?: string
}

/** What stands in the first mebibyte of a disk: the file system's own account of itself. */
export interface Superblock {
  readonly magic: typeof magic
  readonly fileSystem: 'xfs' | 'ext4'
  readonly uuid: string
  readonly label: string
  readonly sizeBytes: string
  /** Of its root directory; absent for what its own host alone writes. */
  readonly root?: FileMarks
  readonly files: readonly FileEntry[]
}

/**
 * File systems on disks, as far as size, fullness and files go: an account in the first mebibyte, files in whole mebibytes behind it. All
 * of it is in the disk's own bytes, so that snapshots and clones hold it as they hold anything else.
 */
export function readSuperblock(disk: DiskBytes): Superblock | undefined {
  const text = disk.read(0n, mebibyte).toString('utf8').replace(/\0+$/, '')
  if (!text.startsWith('{')) return undefined
  try {
    const found = JSON.parse(text) as Superblock
    return found.magic === magic ? found : undefined
  } catch {
    return undefined
  }
}

/** @returns whether there was room: the account of all files has a mebibyte */
function writeSuperblock(disk: DiskBytes, superblock: Superblock): boolean {
  const text = Buffer.from(JSON.stringify(superblock))
  if (text.length > mebibyte) return false
  const data = Buffer.alloc(mebibyte)
  text.copy(data)
  disk.write(0n, data)
  return true
}

export function format(
  disk: DiskBytes,
  fileSystem: Superblock['fileSystem'],
  label: string,
  uuid: string,
  root?: FileMarks,
): void {
  const size = { sizeBytes: `${disk.sizeBytes}`, ...(root === undefined ? {} : { root }) }
  writeSuperblock(disk, { magic, fileSystem, uuid, label, ...size, files: [] })
}

export const markRoot = (disk: DiskBytes, superblock: Superblock, root: FileMarks): boolean =>
  writeSuperblock(disk, { ...superblock, root })

/** As large as its disk; it is never made smaller. */
export function grow(disk: DiskBytes, superblock: Superblock): bigint {
  if (disk.sizeBytes > BigInt(superblock.sizeBytes))
    writeSuperblock(disk, { ...superblock, sizeBytes: `${disk.sizeBytes}` })
  return disk.sizeBytes
}

const mebibytesOf = (length: number) => Math.ceil(length / mebibyte)
export const usedBytes = ({ files }: Superblock) =>
  BigInt(1 + files.reduce((sum, { length }) => sum + mebibytesOf(length), 0)) * BigInt(mebibyte)

/** Writes a file whose bytes follow from a seed. @returns their SHA-256; undefined where it has no room */
export function writeFile(
  disk: DiskBytes,
  superblock: Superblock,
  path: string,
  length: number,
  seed: string,
  marks?: FileMarks,
  head = '',
  now?: number,
): string | undefined {
  const data = Buffer.from(seededHex(seed, path, 64).repeat(Math.ceil(length / 64))).subarray(0, length)
  Buffer.from(head, 'hex').copy(data)
  return keepFile(disk, superblock, path, data, marks, now)
}

/** The bytes come first, then the account that names them: a file is there whole, or not at all. */
export function keepFile(
  disk: DiskBytes,
  superblock: Superblock,
  path: string,
  data: Buffer,
  marks?: FileMarks,
  now?: number,
): string | undefined {
  const others = superblock.files.filter(each => each.path !== path)
  const at = freeAt(superblock, others, mebibytesOf(data.length))
  if (at === undefined) return undefined
  disk.write(BigInt(at) * BigInt(mebibyte), data)
  const entry = { path, at, length: data.length, ...(marks === undefined ? {} : { marks }) }
  const isKept = writeSuperblock(disk, {
    ...superblock,
    files: [...others, now === undefined ? entry : { ...entry, modifiedAt: now }],
  })
  if (!isKept) return undefined
  return createHash('sha256').update(data).digest('hex')
}

/** Takes room for a file without writing it, as fallocate(2) does. @returns whether there was room */
export function reserveFile(
  disk: DiskBytes,
  superblock: Superblock,
  path: string,
  length: number,
  marks: FileMarks,
  now?: number,
): boolean {
  const others = superblock.files.filter(each => each.path !== path)
  const at = freeAt(superblock, others, mebibytesOf(length))
  if (at === undefined) return false
  const entry = { path, at, length, marks, ...(now === undefined ? {} : { modifiedAt: now }) }
  return writeSuperblock(disk, { ...superblock, files: [...others, entry] })
}

/** Files without bytes, at once: of each its first ones are told, the others are zeros. @returns whether there was room for all */
export function reserveFiles(
  disk: DiskBytes,
  superblock: Superblock,
  files: readonly Omit<FileEntry, 'at'>[],
): boolean {
  let at = superblock.files.reduce((end, each) => Math.max(end, each.at + mebibytesOf(each.length)), 1)
  const placed = files.map(file => {
    const own = { ...file, at }
    at += mebibytesOf(file.length)
    return own
  })
  if (BigInt(at) * BigInt(mebibyte) > BigInt(superblock.sizeBytes)) return false
  return writeSuperblock(disk, { ...superblock, files: [...superblock.files, ...placed] })
}

/** Which bytes of a file. */
export interface Part {
  readonly offset: number
  readonly length: number
}

/** What a file holds; undefined where there is none. @param part left out: all of it; behind its end there is nothing */
export function bytesOf(disk: DiskBytes, { files }: Superblock, path: string, part?: Part): Buffer | undefined {
  const file = files.find(each => each.path === path)
  if (file === undefined) return undefined
  const offset = Math.min(part?.offset ?? 0, file.length)
  const length = Math.min(part?.length ?? file.length, file.length - offset)
  const data = disk.read(BigInt(file.at) * BigInt(mebibyte) + BigInt(offset), length)
  if (file.head !== undefined && offset === 0) Buffer.from(file.head, 'hex').copy(data)
  return data
}

const headBytes = 32

/** The first bytes of a file, in hexadecimal. */
export const headAt = (disk: DiskBytes, { at, length, head }: FileEntry): string =>
  head ?? disk.read(BigInt(at) * BigInt(mebibyte), Math.min(headBytes, length)).toString('hex')

/** Where so many mebibytes lie free. */
function freeAt({ sizeBytes }: Superblock, files: readonly FileEntry[], count: number): number | undefined {
  const ordered = [...files].sort((a, b) => a.at - b.at)
  let at = 1
  for (const file of ordered) {
    if (file.at - at >= count) break
    at = file.at + mebibytesOf(file.length)
  }
  return BigInt(at + count) * BigInt(mebibyte) <= BigInt(sizeBytes) ? at : undefined
}

export function readFile(disk: DiskBytes, superblock: Superblock, path: string, part?: Part): string | undefined {
  const data = bytesOf(disk, superblock, path, part)
  return data === undefined ? undefined : createHash('sha256').update(data).digest('hex')
}

export const removeFile = (disk: DiskBytes, superblock: Superblock, path: string): boolean =>
  writeSuperblock(disk, { ...superblock, files: superblock.files.filter(each => each.path !== path) })
