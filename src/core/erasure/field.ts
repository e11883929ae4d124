/**
 * The field GF(2⁸) with the polynomial x⁸ + x⁴ + x³ + x² + 1 and the generator 2: addition is exclusive or, multiplication goes
 * by logarithms. Source: Plank 1997, "A tutorial on Reed–Solomon coding for fault-tolerance in RAID-like systems".
 */
const polynomial = 0x11d
const exponents = new Uint8Array(512)
const logarithms = new Uint8Array(256)
for (let power = 0, value = 1; power < 255; power += 1) {
  exponents[power] = value
  exponents[power + 255] = value
  logarithms[value] = power
  value <<= 1
  if (value > 255) value ^= polynomial
}

export const times = (a: number, b: number): number =>
  a === 0 || b === 0 ? 0 : (exponents[(logarithms[a] ?? 0) + (logarithms[b] ?? 0)] ?? 0)

/** @param value 1 to 255 */
export const inverse = (value: number): number => exponents[255 - (logarithms[value] ?? 0)] ?? 0

/** Inverts a square matrix over the field; undefined where it has no inverse. */
export function invert(matrix: readonly (readonly number[])[]): number[][] | undefined {
  const size = matrix.length
  const work = matrix.map((row, index) => [...row, ...row.map((_, column) => (column === index ? 1 : 0))])
  for (let column = 0; column < size; column += 1) {
    const pivot = work.findIndex((row, index) => index >= column && row[column] !== 0)
    const found = work[pivot]
    if (found === undefined) return undefined
    work[pivot] = work[column] ?? []
    const scale = inverse(found[column] ?? 1)
    const lead = found.map(value => times(value, scale))
    work[column] = lead
    work.forEach((row, index) => {
      const factor = row[column] ?? 0
      if (index !== column && factor !== 0) work[index] = row.map((value, at) => value ^ times(factor, lead[at] ?? 0))
    })
  }
  return work.map(row => row.slice(size))
}
