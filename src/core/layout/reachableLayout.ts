import { domainLayout, type DomainLayout, type FailureDomain, type SpreadScheme } from './domainLayout'

/** A layout as stripes in sets can fill it: a set's pieces stand or move together, so a drive holds whole pieces of sets only. */
export interface ReachableLayout extends DomainLayout {
  /** Chunks that drives hold beyond what whole pieces of sets fill (count), redundancy included. */
  readonly unevenChunks: bigint
}

/**
 * The space that can really be filled where stripes are placed in sets: the largest piece of a set, in chunks, of which all drives
 * together hold enough, no domain more than one of each set. What domains hold in single chunks is more by less than a piece a drive.
 * @param stripeSets sets that are placed together (count, ≥ 1)
 */
export function reachableLayout(
  domains: readonly FailureDomain[],
  scheme: SpreadScheme,
  chunkBytes: bigint,
  stripeSets: number,
): ReachableLayout {
  const layout = domainLayout(domains, scheme, chunkBytes)
  const width = scheme.kind === 'mirror' ? scheme.copies : scheme.dataPieces + scheme.parityPieces
  const dataBytes = BigInt(scheme.kind === 'mirror' ? 1 : scheme.dataPieces) * chunkBytes
  const chunksByDomain = domains.map(domain =>
    domain.drives.map(({ bytes, count }) => ({ chunks: Number(bytes / chunkBytes), count })),
  )
  const reached = (of: readonly Held[], atMost: bigint) => {
    const stripes = BigInt(Math.floor(pieceChunks(of, width, stripeSets) * stripeSets * (1 + Number.EPSILON)))
    return stripes < atMost ? stripes : atMost
  }
  const stripes = reached(chunksByDomain, layout.stripes)
  const largest = layout.domains.reduce(
    (most, each, index) => (each.chunks > (layout.domains[most]?.chunks ?? 0n) ? index : most),
    0,
  )
  const without = chunksByDomain.filter((_, index) => index !== largest)
  const stripesWithoutLargest = layout.rebuildPossible ? reached(without, layout.stripesWithoutLargest) : 0n
  const reserveStripes = layout.rebuildPossible ? stripes - stripesWithoutLargest : null
  return {
    ...layout,
    stripes,
    usableBytes: stripes * dataBytes,
    stripesWithoutLargest,
    reserveStripes,
    reserveBytes: reserveStripes === null ? null : reserveStripes * dataBytes,
    unevenChunks: (layout.stripes - stripes) * BigInt(width),
  }
}

type Held = readonly { readonly chunks: number; readonly count: number }[]
const halvings = 60

/**
 * The largest piece of a set (chunks, a real number) such that all sets can be placed: drives hold whole pieces, a domain at most one of
 * each set. Found by halving: larger pieces never fit more often.
 */
export function pieceChunks(domains: readonly Held[], width: number, stripeSets: number): number {
  const total = domains.reduce(
    (sum, drives) => sum + drives.reduce((own, each) => own + each.chunks * each.count, 0),
    0,
  )
  const fits = (piece: number) =>
    domains.reduce(
      (sum, drives) =>
        sum +
        Math.min(
          stripeSets,
          drives.reduce((own, each) => own + Math.floor(each.chunks / piece) * each.count, 0),
        ),
      0,
    ) >=
    width * stripeSets
  let low = 0
  let high = total / (width * stripeSets)
  if (high > 0 && fits(high)) return high
  for (let halving = 0; halving < halvings; halving += 1) {
    const middle = (low + high) / 2
    if (middle > 0 && fits(middle)) low = middle
    else high = middle
  }
  return low
}
