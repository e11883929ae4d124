import { TooFewDomains } from './errors'

/**
 * The most stripes that fit when each takes one chunk from each of `width` different failure domains.
 *
 * T stripes fit exactly when Σ min(cᵢ, T) ≥ width · T (McNaughton 1959, wrap-around rule). The left side is the least, over every set of
 * domains, of what the others hold plus T for each of the set; so it holds exactly when for each j < width the domains but the j largest
 * hold (width − j) · T: T is the least of ⌊Sⱼ / (width − j)⌋, and only the width − 1 largest domains need to be known one by one.
 * @param chunksByDomain whole chunks that each domain holds (count, ≥ 0; in any order)
 * @param width chunks in a stripe: k + m of an erasure code, or the copies of a mirror (count, ≥ 1)
 * @returns whole stripes (count)
 * @throws {TooFewDomains} where there are fewer domains than `width`
 */
export function mostStripes(chunksByDomain: readonly bigint[], width: number): bigint {
  if (chunksByDomain.length < width) throw new TooFewDomains(chunksByDomain.length, width)
  const largest = new Float64Array(width - 1)
  let total = 0
  for (let index = 0; index < chunksByDomain.length; index += 1) {
    const count = Number(chunksByDomain[index])
    total += count
    if (count > (largest[0] ?? Infinity)) keepLargest(largest, count)
  }
  // Doubles are exact here as long as even the whole sum is; they are some fifty times faster than bigint.
  return total <= Number.MAX_SAFE_INTEGER ? BigInt(leastShare(total, largest, width)) : exactly(chunksByDomain, width)
}

/** Puts a count among the largest, which stand in rising order; the least of them goes. */
function keepLargest(largest: Float64Array, count: number): void {
  let at = 0
  while (at + 1 < largest.length && count > (largest[at + 1] as number)) {
    largest[at] = largest[at + 1] as number
    at += 1
  }
  largest[at] = count
}

function leastShare(total: number, largest: Float64Array, width: number): number {
  let left = total
  let least = Math.floor(left / width)
  for (let taken = 1; taken < width; taken += 1) {
    left -= largest[width - 1 - taken] as number
    least = Math.min(least, Math.floor(left / (width - taken)))
  }
  return least
}

function exactly(chunks: readonly bigint[], width: number): bigint {
  const falling = [...chunks].sort((a, b) => (a < b ? 1 : a > b ? -1 : 0))
  let left = falling.reduce((sum, count) => sum + count, 0n)
  let least = left / BigInt(width)
  for (let taken = 1; taken < width; taken += 1) {
    left -= falling[taken - 1] ?? 0n
    const share = left / BigInt(width - taken)
    if (share < least) least = share
  }
  return least
}
