import type { PoolScheme, SpreadSchemeText } from '../estate'
import type { SpreadScheme } from '../layout'

export const asSpread = (scheme: SpreadSchemeText): SpreadScheme =>
  scheme.kind === 'copies' ? { kind: 'mirror', copies: scheme.copies } : scheme

/** Pieces that restore a stripe, and pieces beyond those (counts). */
export const piecesOf = (scheme: SpreadSchemeText): { readonly needed: number; readonly spare: number } =>
  scheme.kind === 'copies'
    ? { needed: 1, spare: scheme.copies - 1 }
    : { needed: scheme.dataPieces, spare: scheme.parityPieces }

export const widthOf = (scheme: SpreadSchemeText) => piecesOf(scheme).needed + piecesOf(scheme).spare

export const schemeWords = (scheme: SpreadSchemeText) =>
  scheme.kind === 'copies' ? `${scheme.copies} copies` : `${scheme.dataPieces}+${scheme.parityPieces}`

export const isSpreadScheme = (scheme: PoolScheme): scheme is SpreadSchemeText =>
  scheme.kind === 'copies' || scheme.kind === 'erasure'

/**
 * The most failure domains that may be lost at once so that all can still be read, and so that all can still be written.
 * A write is taken while what it leaves would survive one more loss: it needs one piece more than reading does.
 */
export function lossTolerance(
  scheme: SpreadSchemeText,
  domains: number,
): { readonly readable: number; readonly writable: number } {
  const { needed, spare } = piecesOf(scheme)
  return { readable: spare, writable: Math.max(0, Math.min(spare, domains - needed - 1)) }
}

/** What writes cost: input and output operations of a small write, and bytes written for each byte in a full stripe. */
export function writeCost(scheme: SpreadSchemeText): {
  readonly smallWriteOperations: number
  readonly fullStripeRatio: number
} {
  const { needed, spare } = piecesOf(scheme)
  return scheme.kind === 'copies'
    ? { smallWriteOperations: scheme.copies, fullStripeRatio: scheme.copies }
    : { smallWriteOperations: 2 + 2 * spare, fullStripeRatio: (needed + spare) / needed }
}

/** Sets of stripes that are placed together: as many as a pool knows. */
export const stripeSetCount = 4096
