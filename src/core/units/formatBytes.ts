import { binaryUnits, decimalUnits, type UnitFamily } from './byteUnits'

/** A size in words; `exact` keeps what `text` rounds away. */
export interface BytesInWords {
  readonly text: string
  readonly exact: string
  readonly isRounded: boolean
}

const group = (digits: string) => digits.replace(/\B(?=(\d{3})+$)/g, ',')

/**
 * Writes bytes with three significant figures or one decimal, whichever says more, in the largest unit that is at least 1.
 * @param bytes any whole number of bytes
 * @returns the short text, the exact byte count, and whether the short text has rounded
 */
export function bytesInWords(bytes: bigint, family: UnitFamily = 'binary'): BytesInWords {
  const units = family === 'binary' ? binaryUnits : decimalUnits
  const sign = bytes < 0n ? '−' : ''
  const magnitude = bytes < 0n ? -bytes : bytes
  const exact = `${sign}${group(magnitude.toString())} B`
  for (let index = units.length - 1; index >= 0; index -= 1) {
    const [name, unitBytes] = units[index] ?? ['B', 1n]
    if (magnitude < unitBytes && index > 0) continue
    const decimals = index === 0 || magnitude >= unitBytes * 100n ? 1n : magnitude >= unitBytes * 10n ? 1n : 2n
    const scale = 10n ** decimals
    const scaled = (magnitude * scale * 2n + unitBytes) / (2n * unitBytes) // rounds half up, in whole numbers
    const next = units[index + 1]
    // 1,023.97 GiB would be written as 1,024 GiB: the next unit says it better.
    if (next !== undefined && scaled * unitBytes >= next[1] * scale) {
      return { text: `${sign}1 ${next[0]}`, exact, isRounded: magnitude !== next[1] }
    }
    const fraction = (scaled % scale).toString().padStart(Number(decimals), '0').replace(/0+$/, '')
    const text = `${sign}${group((scaled / scale).toString())}${fraction === '' ? '' : `.${fraction}`} ${name}`
    return { text, exact, isRounded: scaled * unitBytes !== magnitude * scale }
  }
  return { text: exact, exact, isRounded: false }
}

/** The short text alone, for sentences: `1.5 TiB`. */
export function formatBytes(bytes: bigint, family: UnitFamily = 'binary'): string {
  return bytesInWords(bytes, family).text
}

/** A figure in one fixed unit, for columns in which all rows share it: `tebibytes(1649267441664n)` is `1.5`. */
export function tebibytes(bytes: bigint, decimals = 1): string {
  return (Number((bytes * 10_000n) / 1024n ** 4n) / 10_000).toFixed(decimals)
}
