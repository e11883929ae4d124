import { fileKinds, type FileKind } from './fileKinds'
import { ageBand, ageDays, bandOf, Counted, isMisnamed, sizeBytes, sumOf, type Sum } from './fileReport'
import { fileAt, folderAt, type FileSegment, type ListedFile } from './segments'

/** A part of a report, that opens to its files. */
export type Slice =
  | { readonly of: 'owner'; readonly uid: number }
  | { readonly of: 'kind'; readonly kind: FileKind | null }
  | { readonly of: 'age' | 'size'; readonly band: number }
  | { readonly of: 'folder'; readonly path: string }
  | { readonly of: 'twins'; readonly bytes: number }
  | { readonly of: 'since'; readonly at: number }
  | { readonly of: 'misnamed' | 'all' }

/** A slice as an address says it: `owner:2001`, `kind:audio`, `age:4`, `folder:/2026`. @returns undefined for what is none */
export function readSlice(text: string): Slice | undefined {
  const [of = '', ...rest] = text.split(':')
  const value = rest.join(':')
  const number = /^\d{1,16}$/.test(value) ? Number(value) : undefined
  if (of === 'misnamed' || of === 'all') return value === '' ? { of } : undefined
  if (of === 'folder') return { of, path: value }
  if (of === 'kind') {
    const kind = fileKinds.find(each => each === value) ?? (value === 'unknown' ? null : undefined)
    return kind === undefined ? undefined : { of, kind }
  }
  if (number === undefined) return undefined
  if (of === 'owner') return { of, uid: number }
  if (of === 'twins') return { of, bytes: number }
  if (of === 'since') return { of, at: number }
  if (of === 'age') return number <= ageDays.length ? { of, band: number } : undefined
  return of === 'size' && number <= sizeBytes.length ? { of, band: number } : undefined
}

/** Whether a file lies in a slice. @param now when the walk was begun (milliseconds) */
function isIn(slice: Slice, segment: FileSegment, index: number, now: number): boolean {
  switch (slice.of) {
    case 'all':
      return true
    case 'owner':
      return segment.uids[index] === slice.uid
    case 'kind':
      return (segment.kinds[index] ?? 0) === (slice.kind === null ? 0 : fileKinds.indexOf(slice.kind) + 1)
    case 'age':
      return ageBand(now, segment.seconds[index] ?? 0) === slice.band
    case 'size':
      return bandOf(sizeBytes, segment.bytes[index] ?? 0) === slice.band
    case 'folder':
      return slice.path === ''
        ? folderAt(segment, index) === ''
        : `${folderAt(segment, index)}/`.startsWith(`${slice.path}/`)
    case 'twins':
      return segment.bytes[index] === slice.bytes
    case 'since':
      return (segment.seconds[index] ?? 0) * 1000 >= slice.at
    case 'misnamed':
      return isMisnamed(segment, index)
  }
}

/** The largest files of a slice, and how many there are of it. */
export class SliceReader {
  readonly #sum = new Counted()
  readonly #largest: { readonly bytes: number; readonly file: ListedFile }[] = []

  /** @param now when the walk was begun (milliseconds). @param most so many of its files are given */
  constructor(
    private readonly slice: Slice,
    private readonly now: number,
    private readonly most: number,
  ) {}

  add(segment: FileSegment): void {
    for (let index = 0; index < segment.count; index += 1) {
      if (!isIn(this.slice, segment, index, this.now)) continue
      const bytes = segment.bytes[index] ?? 0
      this.#sum.add(bytes)
      this.#largest.push({ bytes, file: fileAt(segment, index) })
      if (this.#largest.length >= this.most * 4) this.#cut()
    }
  }

  #cut(): void {
    this.#largest.sort((a, b) => b.bytes - a.bytes)
    this.#largest.length = Math.min(this.#largest.length, this.most)
  }

  found(): Sum & { readonly largest: readonly ListedFile[] } {
    this.#cut()
    return { ...sumOf(this.#sum), largest: this.#largest.map(({ file }) => file) }
  }
}
