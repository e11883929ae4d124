import { mostStripes } from './mostStripes'

/** How a stripe is protected over failure domains. */
export type SpreadScheme =
  | { readonly kind: 'mirror'; readonly copies: number }
  | { readonly kind: 'erasure'; readonly dataPieces: number; readonly parityPieces: number }

/** A failure domain: node, enclosure, rack or site, with its drives as counts of equal ones. */
export interface FailureDomain {
  readonly id: string
  readonly drives: readonly { readonly bytes: bigint; readonly count: number }[]
}

export interface DomainLayout {
  readonly domains: readonly { readonly id: string; readonly chunks: bigint; readonly strandedChunks: bigint }[]
  readonly rawBytes: bigint
  readonly unchunkedBytes: bigint
  readonly stripes: bigint
  readonly usableBytes: bigint
  readonly remainderChunks: bigint
  readonly rebuildPossible: boolean
  readonly stripesWithoutLargest: bigint
  readonly reserveStripes: bigint | null
  readonly reserveBytes: bigint | null
}

/** Pieces in a stripe, each on a domain of its own (count). */
const piecesInStripe = (scheme: SpreadScheme) =>
  scheme.kind === 'mirror' ? scheme.copies : scheme.dataPieces + scheme.parityPieces

/**
 * Capacity of a mirror or erasure code spread over distinct failure domains, and the reserve that lets it heal.
 * @param chunkBytes the size of a chunk; a chunk never spans drives
 * @returns chunks, stripes and bytes; fewer domains than pieces give no stripes, not an error
 */
export function domainLayout(
  domains: readonly FailureDomain[],
  scheme: SpreadScheme,
  chunkBytes: bigint,
): DomainLayout {
  const width = piecesInStripe(scheme)
  const held = domains.map(domain => ({ id: domain.id, chunks: chunksOf(domain, chunkBytes) }))
  const counts = held.map(domain => domain.chunks)
  const totalChunks = counts.reduce((sum, chunks) => sum + chunks, 0n)
  const rawBytes = domains.reduce((sum, domain) => sum + bytesOf(domain), 0n)
  const stripes = counts.length < width ? 0n : mostStripes(counts, width)
  const dataBytes = BigInt(scheme.kind === 'mirror' ? 1 : scheme.dataPieces) * chunkBytes
  const placed = counts.reduce((sum, chunks) => sum + (chunks < stripes ? chunks : stripes), 0n)
  const remaining = withoutLargest(counts)
  const rebuildPossible = remaining.filter(chunks => chunks > 0n).length >= width
  const stripesWithoutLargest = rebuildPossible ? mostStripes(remaining, width) : 0n
  const reserveStripes = rebuildPossible ? stripes - stripesWithoutLargest : null
  return {
    domains: held.map(({ id, chunks }) => ({ id, chunks, strandedChunks: chunks > stripes ? chunks - stripes : 0n })),
    rawBytes,
    unchunkedBytes: rawBytes - totalChunks * chunkBytes,
    stripes,
    usableBytes: stripes * dataBytes,
    remainderChunks: placed - BigInt(width) * stripes,
    rebuildPossible,
    stripesWithoutLargest,
    reserveStripes,
    reserveBytes: reserveStripes === null ? null : reserveStripes * dataBytes,
  }
}

const chunksOf = (domain: FailureDomain, chunkBytes: bigint) =>
  domain.drives.reduce((sum, drive) => sum + BigInt(drive.count) * (drive.bytes / chunkBytes), 0n)

const bytesOf = (domain: FailureDomain) =>
  domain.drives.reduce((sum, drive) => sum + BigInt(drive.count) * drive.bytes, 0n)

function withoutLargest(counts: readonly bigint[]): bigint[] {
  const largest = counts.reduce((most, chunks) => (chunks > most ? chunks : most), 0n)
  const leaving = counts.indexOf(largest)
  return counts.filter((_, index) => index !== leaving)
}
