import { createHash } from 'node:crypto'

/** Hexadecimal digits that follow from a seed and a name alone, so that the fleet is the same at every first start. */
export const seededHex = (seed: string, name: string, digits: number) =>
  createHash('sha256').update(`${seed}/${name}`).digest('hex').slice(0, digits)

/** A whole number in [from, to] that follows from a seed and a name alone. */
export const seededNumber = (seed: string, name: string, from: number, to: number) =>
  from + (parseInt(seededHex(seed, name, 8), 16) % (to - from + 1))

/** A UUID that follows from a seed and a name alone. */
export function seededUuid(seed: string, name: string): string {
  const hex = seededHex(seed, name, 32)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}
