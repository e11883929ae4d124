/** How many distinct blocks were accessed since an access: a Fenwick tree over the latest access of each. */
class LatestAccesses {
  readonly #sums: Int32Array

  constructor(private readonly length: number) {
    this.#sums = new Int32Array(length + 1)
  }

  add(index: number, by: number): void {
    for (let at = index + 1; at <= this.length; at += at & -at) this.#sums[at] = (this.#sums[at] ?? 0) + by
  }

  before(index: number): number {
    let sum = 0
    for (let at = index; at > 0; at -= at & -at) sum += this.#sums[at] ?? 0
    return sum
  }
}

export interface MissCurve {
  readonly accesses: number
  readonly distinctBlocks: number
  readonly curve: readonly { readonly cacheBlocks: number; readonly misses: number; readonly missRatio: number }[]
}

/**
 * How often a cache of whole blocks misses that keeps what was used last, by its size: exactly, from how many distinct other blocks were
 * accessed between two accesses of the same. The cache is empty at first.
 */
export function missCurve(trace: ArrayLike<number>, cacheBlocks: readonly number[]): MissCurve {
  const { distances, distinct } = reuseDistances(trace)
  const curve = cacheBlocks.map(size => {
    let hits = 0
    for (let distance = 0; distance < Math.min(size, distances.length); distance += 1) hits += distances[distance] ?? 0
    const misses = trace.length - hits
    return { cacheBlocks: size, misses, missRatio: trace.length === 0 ? 0 : misses / trace.length }
  })
  return { accesses: trace.length, distinctBlocks: distinct, curve }
}

/** Of how many accesses so many distinct other blocks lie between them and the one before of their own. */
function reuseDistances(trace: ArrayLike<number>): { readonly distances: Int32Array; readonly distinct: number } {
  const latest = new LatestAccesses(trace.length)
  const last = new Map<number, number>()
  const distances = new Int32Array(trace.length)
  for (let at = 0; at < trace.length; at += 1) {
    const block = trace[at] ?? 0
    const before = last.get(block)
    if (before !== undefined) {
      const between = latest.before(at) - latest.before(before + 1)
      distances[between] = (distances[between] ?? 0) + 1
      latest.add(before, -1)
    }
    latest.add(at, 1)
    last.set(block, at)
  }
  return { distances, distinct: last.size }
}

const hashRange = 2 ** 24

/** Murmur3's finaliser: which blocks are looked at must not follow from where they lie. */
function hashed(block: number): number {
  let mixed = (block ^ Math.floor(block / 2 ** 32)) | 0
  mixed = Math.imul(mixed ^ (mixed >>> 16), 0x85ebca6b)
  mixed = Math.imul(mixed ^ (mixed >>> 13), 0xc2b2ae35)
  return (mixed ^ (mixed >>> 16)) >>> 0
}

/**
 * The same for long traces, from the accesses of a share of all blocks that a hash chooses: a cache of so many of all blocks is one of
 * that share of them for the chosen. Of a million blocks it is right to a hundredth, unless a few of them have most of the accesses.
 * @param rate the share of blocks, above 0, at most 1 @returns the estimated miss ratio by cache size
 */
export function sampledMissCurve(
  trace: ArrayLike<number>,
  cacheBlocks: readonly number[],
  rate: number,
): readonly { readonly cacheBlocks: number; readonly missRatio: number }[] {
  const chosen: number[] = []
  for (let at = 0; at < trace.length; at += 1) {
    const block = trace[at] ?? 0
    if (hashed(block) % hashRange < rate * hashRange) chosen.push(block)
  }
  // Hot blocks chosen by chance, or missed by it, weigh much: what is too many or too few is taken for hits of the hottest.
  const expected = trace.length * rate
  const { distances } = reuseDistances(chosen)
  distances[0] = (distances[0] ?? 0) + Math.round(expected - chosen.length)
  return cacheBlocks.map(size => {
    let hits = 0
    const reach = Math.min(Math.max(1, Math.round(size * rate)), distances.length)
    for (let distance = 0; distance < reach; distance += 1) hits += distances[distance] ?? 0
    return { cacheBlocks: size, missRatio: Math.min(1, Math.max(0, expected === 0 ? 0 : 1 - hits / expected)) }
  })
}
