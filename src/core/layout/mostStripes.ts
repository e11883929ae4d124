import { TooFewDomains } from './errors'

/**
 * The most stripes that fit when each takes one chunk from each of `width` different failure domains.
 * @param chunksByDomain whole chunks that each domain holds (count, ≥ 0; in any order)
 * @param width chunks in a stripe: k + m of an erasure code, or the copies of a mirror (count, ≥ 1)
 * @returns whole stripes (count)
 * @throws {TooFewDomains} where there are fewer domains than `width`
 * @see McNaughton 1959, wrap-around rule: T stripes fit exactly when Σ min(cᵢ, T) ≥ width · T
 */
export function mostStripes(chunksByDomain: readonly bigint[], width: number): bigint {
  if (chunksByDomain.length < width) throw new TooFewDomains(chunksByDomain.length, width)
  const chunks = new Float64Array(chunksByDomain.length)
  let total = 0
  for (let index = 0; index < chunks.length; index += 1) {
    const count = Number(chunksByDomain[index])
    chunks[index] = count
    total += count
  }
  // Doubles are exact here as long as even the whole sum is; they are some fifty times faster than bigint.
  if (total <= Number.MAX_SAFE_INTEGER) return BigInt(halve(chunks, width, total))
  return halveExactly(
    chunksByDomain,
    BigInt(width),
    chunksByDomain.reduce((sum, count) => sum + count, 0n),
  )
}

function halve(chunks: Float64Array, width: number, total: number): number {
  let fits = 0
  let tooMany = Math.floor(total / width) + 1
  // placeable(T) − width · T is concave and 0 at T = 0: once negative it stays so, hence halving.
  while (tooMany - fits > 1) {
    const middle = Math.floor((fits + tooMany) / 2)
    let placeable = 0
    for (const count of chunks) placeable += count < middle ? count : middle
    if (placeable >= width * middle) fits = middle
    else tooMany = middle
  }
  return fits
}

function halveExactly(chunks: readonly bigint[], width: bigint, total: bigint): bigint {
  let fits = 0n
  let tooMany = total / width + 1n
  while (tooMany - fits > 1n) {
    const middle = (fits + tooMany) / 2n
    const placeable = chunks.reduce((sum, count) => sum + (count < middle ? count : middle), 0n)
    if (placeable >= width * middle) fits = middle
    else tooMany = middle
  }
  return fits
}
