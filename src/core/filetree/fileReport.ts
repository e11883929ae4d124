import { fileKinds, type FileKind } from './fileKinds'
import { fileAt, nameAt, type FileSegment, type ListedFile } from './segments'

/** How many, and how much they hold. */
export interface Sum {
  readonly files: number
  readonly bytes: number
}

/** What a walk has found, summed up by what one asks of files. All of it is plain JSON. */
export interface FileReport extends Sum {
  /** The first level below the root, the fullest first; what lies at the root itself has an empty path. */
  readonly folders: readonly (Sum & { readonly path: string })[]
  readonly owners: readonly (Sum & { readonly uid: number })[]
  /** By what the first bytes say; null where they say nothing that is known. */
  readonly kinds: readonly (Sum & { readonly kind: FileKind | null })[]
  /** Since they were last written, by the bands of `ageDays`. */
  readonly ages: readonly Sum[]
  /** By the bands of `sizeBytes`. */
  readonly sizes: readonly Sum[]
  /** Whose name says another kind than their first bytes. */
  readonly misnamed: Sum
  readonly largest: readonly ListedFile[]
  readonly oldest: readonly ListedFile[]
  /** Files of one size, those first of which all but one would free the most; of what a host can read at once as many again. Whether they are alike their sums say. */
  readonly sameSize: readonly { readonly bytes: number; readonly files: number }[]
}

/** Bands of age: younger than so many days; what is older than all stands last. */
export const ageDays = [7, 30, 90, 365, 1095] as const
/** Bands of size: smaller than so many bytes; what is larger than all stands last. */
export const sizeBytes = [4096, 1024 ** 2, 64 * 1024 ** 2, 1024 ** 3, 16 * 1024 ** 3] as const

const daySeconds = 86_400
const mostShown = 50
const mostGroups = 40
/** Below this nobody looks for what is there twice. */
const leastTwin = 1024 ** 2
/** Hosts read so much of a file at once, to tell twins by their sums (bytes). */
export const mostReadBytes = 64 * 1024 ** 2
/** Files that are larger are not compared: reading them takes as long as copying them. */
export const mostComparedBytes = 64 * mostReadBytes

/** What names say. Names that may hold anything say nothing. */
const extensions: Readonly<Record<string, FileKind>> = {
  ...{ mp3: 'audio', flac: 'audio', ogg: 'audio', wav: 'audio' },
  ...{ mp4: 'video', mkv: 'video', avi: 'video', webm: 'video' },
  ...{ jpg: 'picture', jpeg: 'picture', png: 'picture', tif: 'picture', tiff: 'picture' },
  ...{ zip: 'archive', gz: 'archive', '7z': 'archive' },
  ...{ exe: 'program', so: 'program', pdf: 'document' },
}
const kindOfName = (name: string) => extensions[name.slice(name.lastIndexOf('.') + 1).toLowerCase()]

/** The band of a value: the first bound that is above it, else the last band. */
export const bandOf = (bounds: readonly number[], value: number) => {
  const found = bounds.findIndex(bound => value < bound)
  return found < 0 ? bounds.length : found
}
export const ageBand = (now: number, seconds: number) => bandOf(ageDays, (now / 1000 - seconds) / daySeconds)

/** Whether a file's name says another kind than its first bytes. */
export function isMisnamed(segment: FileSegment, index: number): boolean {
  const kind = fileKinds[(segment.kinds[index] ?? 0) - 1]
  const said = kind === undefined ? undefined : kindOfName(nameAt(segment, index))
  return said !== undefined && said !== kind
}

export class Counted {
  files = 0
  bytes = 0
  add(bytes: number): void {
    this.files += 1
    this.bytes += bytes
  }
}

export const sumOf = ({ files, bytes }: Sum): Sum => ({ files, bytes })
const fullest = <T extends Sum>(all: readonly T[]) => [...all].sort((a, b) => b.bytes - a.bytes || b.files - a.files)

/** Of many files the few that come first in an order, without keeping the others. */
class Foremost {
  readonly #kept: { readonly rank: number; readonly file: ListedFile }[] = []
  #least = -Infinity

  offer(rank: number, file: () => ListedFile): void {
    if (this.#kept.length >= mostShown && rank <= this.#least) return
    this.#kept.push({ rank, file: file() })
    if (this.#kept.length < mostShown * 2) return
    this.#cut()
  }

  #cut(): void {
    this.#kept.sort((a, b) => b.rank - a.rank)
    this.#kept.length = Math.min(this.#kept.length, mostShown)
    this.#least = this.#kept.at(-1)?.rank ?? -Infinity
  }

  files(): ListedFile[] {
    this.#cut()
    return this.#kept.map(({ file }) => file)
  }
}

/** Sums files up, segment by segment: what stands in memory does not grow with their number, but with that of owners and folders. */
export class FileReporter {
  readonly #all = new Counted()
  readonly #misnamed = new Counted()
  readonly #folders = new Map<string, Counted>()
  readonly #owners = new Map<number, Counted>()
  readonly #kinds = Array.from({ length: fileKinds.length + 1 }, () => new Counted())
  readonly #ages = Array.from({ length: ageDays.length + 1 }, () => new Counted())
  readonly #sizes = Array.from({ length: sizeBytes.length + 1 }, () => new Counted())
  readonly #largest = new Foremost()
  readonly #oldest = new Foremost()
  readonly #bySize = new Map<number, number>()

  /** @param now when the walk was begun (milliseconds) */
  constructor(private readonly now: number) {}

  add(segment: FileSegment): void {
    const tops = segment.folders.map(topOf)
    for (let index = 0; index < segment.count; index += 1) {
      const bytes = segment.bytes[index] ?? 0
      const seconds = segment.seconds[index] ?? 0
      this.#all.add(bytes)
      counter(this.#folders, tops[segment.folderOf[index] ?? 0] ?? '').add(bytes)
      counter(this.#owners, segment.uids[index] ?? 0).add(bytes)
      this.#kinds[segment.kinds[index] ?? 0]?.add(bytes)
      this.#ages[ageBand(this.now, seconds)]?.add(bytes)
      this.#sizes[bandOf(sizeBytes, bytes)]?.add(bytes)
      if (isMisnamed(segment, index)) this.#misnamed.add(bytes)
      const file = () => fileAt(segment, index)
      this.#largest.offer(bytes, file)
      this.#oldest.offer(-seconds, file)
      if (bytes >= leastTwin) this.#bySize.set(bytes, (this.#bySize.get(bytes) ?? 0) + 1)
    }
  }

  report(): FileReport {
    const twins = [...this.#bySize]
      .flatMap(([bytes, files]) => (files > 1 ? [{ bytes, files }] : []))
      .sort((a, b) => b.bytes * (b.files - 1) - a.bytes * (a.files - 1))
    return {
      ...sumOf(this.#all),
      folders: fullest([...this.#folders].map(([path, sum]) => ({ path, ...sumOf(sum) }))).slice(0, mostShown * 4),
      owners: fullest([...this.#owners].map(([uid, sum]) => ({ uid, ...sumOf(sum) }))).slice(0, mostShown * 4),
      kinds: fullest(this.#kinds.map((sum, index) => ({ kind: fileKinds[index - 1] ?? null, ...sumOf(sum) }))).filter(
        ({ files }) => files > 0,
      ),
      ages: this.#ages.map(sumOf),
      sizes: this.#sizes.map(sumOf),
      misnamed: sumOf(this.#misnamed),
      largest: this.#largest.files(),
      oldest: this.#oldest.files(),
      sameSize: [
        ...new Set([
          ...twins.slice(0, mostGroups),
          ...twins.filter(({ bytes }) => bytes <= mostComparedBytes).slice(0, mostGroups),
        ]),
      ],
    }
  }
}

function counter<Key>(all: Map<Key, Counted>, key: Key): Counted {
  const known = all.get(key)
  if (known !== undefined) return known
  const made = new Counted()
  all.set(key, made)
  return made
}

/** The first level of a folder's path: `/2026/03` lies in `/2026`. */
const topOf = (folder: string) => {
  const end = folder.indexOf('/', 1)
  return end < 0 ? folder : folder.slice(0, end)
}

/** How a sum was before and is now. */
export interface Difference {
  readonly key: string
  readonly before: Sum
  readonly after: Sum
}

const nothing: Sum = { files: 0, bytes: 0 }

/** What has grown and shrunk between two walks, by folder; what has changed most first. */
export function growthOf(before: FileReport, after: FileReport): Difference[] {
  const keys = new Set([...before.folders, ...after.folders].map(({ path }) => path))
  const of = ({ folders }: FileReport, key: string) => sumOf(folders.find(({ path }) => path === key) ?? nothing)
  return [...keys]
    .map(key => ({ key, before: of(before, key), after: of(after, key) }))
    .filter(each => each.before.bytes !== each.after.bytes || each.before.files !== each.after.files)
    .sort((a, b) => Math.abs(b.after.bytes - b.before.bytes) - Math.abs(a.after.bytes - a.before.bytes))
}
