import { folderAt, type FileSegment } from './segments'

/** A folder of a walk, with all that lies below it. Folders are numbered in the order of their paths; the root is 0. */
export interface FolderSum {
  readonly id: number
  /** Null for the root. */
  readonly parentId: number | null
  readonly name: string
  /** Below it, however deep. */
  readonly files: number
  readonly bytes: number
  /** Folders that lie directly in it. */
  readonly folders: number
  /** When the latest of its files was written (milliseconds). */
  readonly newestAt: number
}

/** One on the way to the latest file. Of a shape of its own, and copied by name: spread, a million of them take fifteen times as long. */
class Open {
  files = 0
  bytes = 0
  folders = 0
  newestAt = 0

  constructor(
    readonly id: number,
    readonly parentId: number | null,
    readonly name: string,
    readonly path: string,
  ) {}

  get sum(): FolderSum {
    const { id, parentId, name, files, bytes, folders, newestAt } = this
    return { id, parentId, name, files, bytes, folders, newestAt }
  }
}

const isWithin = (path: string, of: string) => of === '' || path === of || path.startsWith(`${of}/`)

/**
 * Sums up what lies below each folder while files come in the order of their paths: what a folder holds comes together, so that no more
 * stands in memory than the folders on the way to the latest file, however many there are.
 */
export class FolderSums {
  readonly #open: [Open, ...Open[]] = [new Open(0, null, '', '')]
  #next = 1

  /** @returns folders that are whole now: nothing of them follows */
  add(segment: FileSegment): FolderSum[] {
    const whole: FolderSum[] = []
    let last: string | undefined
    for (let index = 0; index < segment.count; index += 1) {
      const path = folderAt(segment, index)
      if (path !== last) this.#enter(path, whole)
      last = path
      const top = this.#top
      top.files += 1
      top.bytes += segment.bytes[index] ?? 0
      top.newestAt = Math.max(top.newestAt, (segment.seconds[index] ?? 0) * 1000)
    }
    return whole
  }

  /** @returns those that were open to the end, the root last */
  end(): FolderSum[] {
    const whole: FolderSum[] = []
    while (this.#open.length > 1) this.#close(whole)
    return [...whole, this.#open[0].sum]
  }

  get #top(): Open {
    return this.#open.at(-1) ?? this.#open[0]
  }

  #enter(path: string, whole: FolderSum[]): void {
    while (!isWithin(path, this.#top.path)) this.#close(whole)
    const above = this.#top.path
    const names = path.slice(above.length).split('/').slice(1)
    let at = above
    for (const name of names) {
      at = `${at}/${name}`
      this.#open.push(new Open(this.#next, this.#top.id, name, at))
      this.#next += 1
    }
  }

  #close(whole: FolderSum[]): void {
    const done = this.#open.pop()
    if (done === undefined) return
    const above = this.#top
    above.files += done.files
    above.bytes += done.bytes
    above.folders += 1
    above.newestAt = Math.max(above.newestAt, done.newestAt)
    whole.push(done.sum)
  }
}
