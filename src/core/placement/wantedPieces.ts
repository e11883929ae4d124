import { usableChunks } from './inclusionMultipliers'
import type { PlacementDomain } from './placer'

/**
 * How many pieces each drive should hold: its share of all, rounded one way or the other, and never more than its space takes. Rounded
 * up where it has so many already, so that few have to move.
 *
 * @param piece chunks that a piece of a set takes at most (a real number)
 * @param loads pieces that each drive has now (count)
 * @returns pieces of each drive (count), in all `width` for each set; a domain has at most one of each set
 */
export function wantedPieces(
  domains: readonly PlacementDomain[],
  width: number,
  stripeSets: number,
  piece: number,
  loads: Int32Array,
): Int32Array {
  const held = domains.map(domain => domain.drives.reduce((sum, drive) => sum + drive.chunks, 0))
  const usable = usableChunks(held, width)
  const total = usable.reduce((sum, chunks) => sum + chunks, 0)
  const drives = domains.flatMap((domain, index) =>
    domain.drives.map(({ chunks }) => ({
      domain: index,
      share: ((usable[index] ?? 0) / total) * width * stripeSets * (chunks / Math.max(1, held[index] ?? 1)),
      most: Math.floor(chunks / piece + 1e-9),
    })),
  )
  const wanted = Int32Array.from(drives, ({ share, most }) => Math.min(most, Math.floor(share + 1e-9)))
  const inDomain = new Int32Array(domains.length)
  drives.forEach(({ domain }, drive) => (inDomain[domain] = (inDomain[domain] ?? 0) + (wanted[drive] ?? 0)))
  let left = width * stripeSets - wanted.reduce((sum, pieces) => sum + pieces, 0)
  const raise = (drive: number) => {
    const { domain, most } = drives[drive] ?? { domain: 0, most: 0 }
    if (left <= 0 || (wanted[drive] ?? 0) >= most || (inDomain[domain] ?? 0) >= stripeSets) return
    wanted[drive] = (wanted[drive] ?? 0) + 1
    inDomain[domain] = (inDomain[domain] ?? 0) + 1
    left -= 1
  }
  const order = [...wanted.keys()]
  const fractionOf = (drive: number) => (drives[drive]?.share ?? 0) - (wanted[drive] ?? 0)
  const hasMore = (drive: number) => Number((loads[drive] ?? 0) > (wanted[drive] ?? 0))
  for (const drive of order
    .filter(each => fractionOf(each) > 1e-9)
    .sort((a, b) => hasMore(b) - hasMore(a) || fractionOf(b) - fractionOf(a)))
    raise(drive)
  // What rounding leaves over goes to those with room, the most room first, round by round.
  for (let before = -1; left > 0 && before !== left; ) {
    before = left
    const room = (drive: number) => (drives[drive]?.most ?? 0) - (wanted[drive] ?? 0)
    for (const drive of order.sort((a, b) => hasMore(b) - hasMore(a) || room(b) - room(a))) raise(drive)
  }
  return wanted
}
