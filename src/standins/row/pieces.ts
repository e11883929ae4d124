import { ErasureCode } from '@/core/erasure'
import { extentBytes, type PoolEntity, type SpreadScheme } from '../array'

const size = Number(extentBytes)

export const schemeOf = (pool: PoolEntity): SpreadScheme => pool.spread?.scheme ?? { kind: 'copies', copies: 2 }
export const neededOf = (scheme: SpreadScheme) => (scheme.kind === 'copies' ? 1 : scheme.dataPieces)
export const widthOf = (scheme: SpreadScheme) =>
  scheme.kind === 'copies' ? scheme.copies : scheme.dataPieces + scheme.parityPieces

const codes = new Map<string, ErasureCode>()
function codeOf(data: number, parity: number): ErasureCode {
  const known = codes.get(`${data}+${parity}`) ?? new ErasureCode(data, parity)
  codes.set(`${data}+${parity}`, known)
  return known
}

/** An extent as pieces, by index: data first, then parity; or as many copies. */
export function cut(scheme: SpreadScheme, whole: Buffer): Uint8Array[] {
  if (scheme.kind === 'copies') return Array.from({ length: scheme.copies }, () => new Uint8Array(whole))
  const length = Math.ceil(size / scheme.dataPieces)
  const data = Array.from({ length: scheme.dataPieces }, (_, index) => {
    const piece = new Uint8Array(length)
    piece.set(whole.subarray(index * length, Math.min(size, (index + 1) * length)))
    return piece
  })
  return [...data, ...codeOf(scheme.dataPieces, scheme.parityPieces).encode(data)]
}

export function restored(scheme: SpreadScheme, found: readonly (Uint8Array | undefined)[]): Uint8Array[] {
  if (scheme.kind === 'erasure') return codeOf(scheme.dataPieces, scheme.parityPieces).restore(found)
  const copy = found.find(piece => piece !== undefined) ?? new Uint8Array()
  return found.map(piece => piece ?? copy)
}

export function* spans(
  offset: bigint,
  length: number,
): Generator<{ extent: bigint; from: number; at: number; length: number }> {
  for (let from = 0; from < length; ) {
    const position = offset + BigInt(from)
    const at = Number(position % extentBytes)
    const part = Math.min(length - from, size - at)
    yield { extent: position / extentBytes, from, at, length: part }
    from += part
  }
}
