import { formatBytes } from '@/core/units'

/** Growth a day in words, with its sign; what is less than a mebibyte is none. */
export function growthWords(bytesPerDay: number): string {
  if (Math.abs(bytesPerDay) < 2 ** 20) return '0'
  const words = formatBytes(BigInt(Math.round(Math.abs(bytesPerDay))))
  return `${bytesPerDay < 0 ? '−' : '+'}${words}`
}
