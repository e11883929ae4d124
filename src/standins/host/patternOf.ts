import { seededHex } from '../fleet'

/** Bytes that no block repeats: each block of an extent's 4 KiB is keyed by seed and place. */
export function patternOf(seed: string, length: number): Buffer {
  const block = 4096
  const data = Buffer.alloc(length)
  for (let at = 0; at < length; at += block) {
    const line = Buffer.from(seededHex(seed, `${at}`, 64), 'hex')
    for (let within = at; within < Math.min(at + block, length); within += line.length) line.copy(data, within)
  }
  return data
}
