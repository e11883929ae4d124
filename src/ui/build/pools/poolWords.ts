import { isSpreadScheme, schemeWords } from '@/core/clusters'
import { provisionableBytes, type Pool } from '@/core/estate'

/** How a pool is laid out, in words. */
export function layoutWords({ scheme, groupSizes, spareCount, failureDomain }: Pool): string {
  if (isSpreadScheme(scheme))
    return `${schemeWords(scheme)} over ${failureDomain ?? 'node'}s, ${groupSizes.length} banks`
  if (scheme.kind === 'unknown') return `unknown layout (the system says: ${scheme.stated})`
  const group =
    scheme.kind === 'parity'
      ? `${[...new Set(groupSizes)].map(size => `${size - scheme.parityDrives}+${scheme.parityDrives}`).join(', ')}`
      : `${scheme.copies} copies`
  return `${groupSizes.length} × (${group})${spareCount === 0 ? '' : `, ${spareCount} spare${spareCount === 1 ? '' : 's'}`}`
}

/** What part some bytes are of what a pool can give to volumes; 0 where it can give nothing. */
export function fillOf(pool: Pool, bytes: bigint): number {
  const capacity = provisionableBytes(pool)
  return capacity === 0n ? 0 : Number(bytes) / Number(capacity)
}
