import { fileKinds, type FileKind } from './fileKinds'

/** A file as it was found in a walk. */
export interface ListedFile {
  /** From the root of what was walked: `/2026/skull.tif`. */
  readonly path: string
  readonly uid: number
  readonly gid: number
  readonly bytes: number
  /** When it was last written (milliseconds). */
  readonly modifiedAt: number
  /** By its first bytes; undefined where they say nothing that is known. */
  readonly kind: FileKind | undefined
}

/** Files side by side, one array for each thing that is known of them: some 45 bytes a file and the names, however many there are. */
export interface FileSegment {
  readonly count: number
  readonly folders: readonly string[]
  readonly folderOf: Uint32Array
  /** Where each name ends among the bytes of all. */
  readonly nameEnds: Uint32Array
  readonly names: Uint8Array
  readonly bytes: Float64Array
  /** Whole seconds. */
  readonly seconds: Uint32Array
  readonly uids: Uint32Array
  readonly gids: Uint32Array
  /** Zero where nothing is known, else one more than its place among the kinds. */
  readonly kinds: Uint8Array
}

/** So many files make a segment at most. */
export const segmentFiles = 65_536

/** Puts files side by side. */
export function makeSegment(files: readonly ListedFile[]): FileSegment {
  const encoder = new TextEncoder()
  const folders = new Map<string, number>()
  const folderOf = new Uint32Array(files.length)
  const nameEnds = new Uint32Array(files.length)
  const encoded: Uint8Array[] = []
  let end = 0
  files.forEach(({ path }, index) => {
    const cut = path.lastIndexOf('/')
    const folder = path.slice(0, Math.max(0, cut))
    const known = folders.get(folder) ?? folders.size
    folders.set(folder, known)
    folderOf[index] = known
    const name = encoder.encode(path.slice(cut + 1))
    encoded.push(name)
    end += name.length
    nameEnds[index] = end
  })
  const names = new Uint8Array(end)
  encoded.forEach((name, index) => names.set(name, (nameEnds[index] ?? 0) - name.length))
  return {
    count: files.length,
    folders: [...folders.keys()],
    folderOf,
    nameEnds,
    names,
    bytes: Float64Array.from(files, each => each.bytes),
    seconds: Uint32Array.from(files, each => Math.max(0, Math.floor(each.modifiedAt / 1000))),
    uids: Uint32Array.from(files, each => each.uid),
    gids: Uint32Array.from(files, each => each.gid),
    kinds: Uint8Array.from(files, each => (each.kind === undefined ? 0 : fileKinds.indexOf(each.kind) + 1)),
  }
}

/** Made at the first use: where only reports are shown nothing is decoded. */
let decoder: TextDecoder | undefined
function decoded(bytes: Uint8Array): string {
  decoder ??= new TextDecoder()
  return decoder.decode(bytes)
}

export const nameAt = ({ names, nameEnds }: FileSegment, index: number): string =>
  decoded(names.subarray(index === 0 ? 0 : nameEnds[index - 1], nameEnds[index]))

export const folderAt = ({ folders, folderOf }: FileSegment, index: number): string =>
  folders[folderOf[index] ?? 0] ?? ''

/** One of the files of a segment. */
export const fileAt = (segment: FileSegment, index: number): ListedFile => ({
  path: `${folderAt(segment, index)}/${nameAt(segment, index)}`,
  uid: segment.uids[index] ?? 0,
  gid: segment.gids[index] ?? 0,
  bytes: segment.bytes[index] ?? 0,
  modifiedAt: (segment.seconds[index] ?? 0) * 1000,
  kind: fileKinds[(segment.kinds[index] ?? 0) - 1],
})

/** A segment as bytes: the length of a heading in JSON, the heading, then the arrays, the widest first so that each lies at a round place. */
export function packSegment(segment: FileSegment): Uint8Array {
  const { count, folders, names } = segment
  const plain = new TextEncoder().encode(JSON.stringify({ count, folders, nameBytes: names.length }))
  // Padded with blanks, which JSON passes over.
  const head = new Uint8Array(Math.ceil((plain.length + 4) / 8) * 8 - 4).fill(32)
  head.set(plain)
  const parts = [
    segment.bytes,
    segment.seconds,
    segment.uids,
    segment.gids,
    segment.folderOf,
    segment.nameEnds,
    segment.kinds,
    names,
  ]
  const packed = new Uint8Array(4 + head.length + parts.reduce((sum, part) => sum + part.byteLength, 0))
  new DataView(packed.buffer).setUint32(0, head.length)
  packed.set(head, 4)
  let at = 4 + head.length
  for (const part of parts) {
    packed.set(new Uint8Array(part.buffer, part.byteOffset, part.byteLength), at)
    at += part.byteLength
  }
  return packed
}

/** What was packed. @param packed of this process's own byte order */
export function unpackSegment(packed: Uint8Array): FileSegment {
  // Moved to the beginning of a buffer of its own: the arrays are read in place, and have to lie at round places.
  const own = packed.byteOffset % 8 === 0 ? packed : packed.slice()
  const headLength = new DataView(own.buffer, own.byteOffset).getUint32(0)
  const { count, folders, nameBytes } = JSON.parse(decoded(own.subarray(4, 4 + headLength))) as {
    readonly count: number
    readonly folders: readonly string[]
    readonly nameBytes: number
  }
  let at = own.byteOffset + 4 + headLength
  const next = (bytes: number) => {
    const from = at
    at += bytes
    return from
  }
  const whole = () => new Uint32Array(own.buffer, next(count * 4), count)
  return {
    count,
    folders,
    bytes: new Float64Array(own.buffer, next(count * 8), count),
    seconds: whole(),
    uids: whole(),
    gids: whole(),
    folderOf: whole(),
    nameEnds: whole(),
    kinds: new Uint8Array(own.buffer, next(count), count),
    names: new Uint8Array(own.buffer, next(nameBytes), nameBytes),
  }
}
