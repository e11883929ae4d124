import { binaryUnits, decimalUnits } from './byteUnits'

/** Either a whole number of bytes or the rule that the text breaks. */
export type ParsedBytes =
  | { readonly bytes: bigint }
  | { readonly rule: 'size-empty' | 'size-number' | 'size-unit' | 'size-whole' | 'size-range'; readonly why: string }

const unitBytesByName = new Map<string, bigint>(
  [...binaryUnits, ...decimalUnits].map(([name, bytes]) => [name.toLowerCase(), bytes]),
)
const largestBytes = 2n ** 80n

/**
 * Reads a size with its unit: `4 GiB`, `4GB`, `1.5 TiB`, `1,024 MiB`. A bare number is refused, since units are never guessed.
 * Letter case is free; `G`, `T` and other single letters are refused, since practice uses them for both families.
 */
export function parseBytes(text: string): ParsedBytes {
  const trimmed = text.trim()
  if (trimmed === '') return { rule: 'size-empty', why: 'Give a size with its unit, such as 500 GiB or 2 TB.' }
  const match = /^([0-9][0-9,_ ]*)(?:\.([0-9]{1,30}))?\s*([A-Za-z]*)$/.exec(trimmed)
  if (match === null)
    return { rule: 'size-number', why: `"${trimmed.slice(0, 40)}" is not a size. Write it like 500 GiB or 1.5 TB.` }
  const whole = (match[1] ?? '').replace(/[,_ ]/g, '')
  const fraction = match[2] ?? ''
  const unit = match[3] ?? ''
  if (unit === '') {
    return { rule: 'size-unit', why: `${trimmed} of what? Units are never guessed: write ${whole} GiB or ${whole} GB.` }
  }
  const unitBytes = unitBytesByName.get(unit.toLowerCase())
  if (unitBytes === undefined) {
    return {
      rule: 'size-unit',
      why: `"${unit}" is not a unit of size. Use KiB, MiB, GiB, TiB, PiB or kB, MB, GB, TB, PB.`,
    }
  }
  const scale = 10n ** BigInt(fraction.length)
  const scaled = BigInt(whole + fraction) * unitBytes
  if (scaled % scale !== 0n && unitBytes === 1n) {
    return { rule: 'size-whole', why: 'There are no parts of a byte: give a whole number of bytes.' }
  }
  const bytes = scaled / scale
  if (bytes > largestBytes)
    return { rule: 'size-range', why: 'No system holds so much. The largest size understood is 1,048,576 EiB.' }
  return { bytes }
}
