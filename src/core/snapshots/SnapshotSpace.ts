/** A version of some blocks: alive from its birth until another took its place. Times are of one clock, whole numbers. */
export interface BlockVersion {
  readonly birth: number
  /** Exclusive; null while it is live. */
  readonly death: number | null
  readonly bytes: bigint
}

/** Bytes that are held by the snapshots from one to another, and no others, and are no longer live. Both are places in time order. */
export interface HeldRun {
  readonly first: number
  readonly last: number
  readonly bytes: bigint
}

/**
 * Which snapshots hold each version that is no longer live: those from its birth on that were taken before its death stand beside each
 * other. A version that died between two snapshots is held by none.
 * @param takenAt of the snapshots, ascending
 */
export function heldRuns(takenAt: readonly number[], versions: readonly BlockVersion[]): HeldRun[] {
  return versions.flatMap(({ birth, death, bytes }) => {
    if (death === null) return []
    const first = firstFrom(takenAt, birth)
    const last = firstFrom(takenAt, death) - 1
    return first <= last ? [{ first, last, bytes }] : []
  })
}

/** The place of the first that is not before an instant. */
function firstFrom(ascending: readonly number[], at: number): number {
  let low = 0
  let high = ascending.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((ascending[middle] ?? Infinity) < at) low = middle + 1
    else high = middle
  }
  return low
}

/**
 * What snapshots of one volume would give back, one by one and together. Built once over a table of bytes by first and last holder; then
 * any run costs one look, and any set one look for each run in it: the holders of a version stand beside each other.
 * Places are those of the snapshots in time order.
 */
export class SnapshotSpace {
  /** Bytes held within places a to b only, row by row: row a begins where the rows above it end. */
  readonly #within: BigUint64Array

  /**
   * @param count of snapshots; the table takes 4 · count² bytes
   * @param runs what is held by whom
   */
  constructor(
    readonly count: number,
    runs: readonly HeldRun[],
  ) {
    this.#within = new BigUint64Array((count * (count + 1)) / 2)
    for (const { first, last, bytes } of runs) {
      const place = this.#place(first, last)
      this.#within[place] = (this.#within[place] ?? 0n) + bytes
    }
    for (let a = count - 1; a >= 0; a -= 1) {
      let row = 0n
      for (let b = a; b < count; b += 1) {
        row += this.#within[this.#place(a, b)] ?? 0n
        this.#within[this.#place(a, b)] = row + (a + 1 <= b ? (this.#within[this.#place(a + 1, b)] ?? 0n) : 0n)
      }
    }
  }

  /** Bytes that only this one holds. */
  own(place: number): bigint {
    return this.reclaimOfRun(place, place)
  }

  /** Bytes that come back when all from one to another go, both included. */
  reclaimOfRun(first: number, last: number): bigint {
    return first > last || first < 0 || last >= this.count ? 0n : (this.#within[this.#place(first, last)] ?? 0n)
  }

  /** Bytes that come back when these go: bytes whose every holder is among them. */
  reclaim(places: Iterable<number>): bigint {
    const ordered = [...new Set(places)].sort((a, b) => a - b)
    let sum = 0n
    for (let index = 0; index < ordered.length; ) {
      let end = index
      while (ordered[end + 1] === (ordered[end] ?? 0) + 1) end += 1
      sum += this.reclaimOfRun(ordered[index] ?? 0, ordered[end] ?? 0)
      index = end + 1
    }
    return sum
  }

  /** All that only snapshots hold. */
  total(): bigint {
    return this.reclaimOfRun(0, this.count - 1)
  }

  #place(first: number, last: number): number {
    return first * this.count - (first * (first - 1)) / 2 + (last - first)
  }
}
