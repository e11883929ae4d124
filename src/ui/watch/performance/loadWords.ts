import { formatBytes } from '@/core/units'

/** A time of milliseconds and less, with as many places as say something. */
export function latencyWords(seconds: number): string {
  const milliseconds = seconds * 1000
  if (milliseconds >= 100) return `${milliseconds.toFixed(0)} ms`
  return `${milliseconds.toFixed(milliseconds >= 10 ? 1 : 2)} ms`
}

export const requestWords = (perSecond: number) =>
  `${perSecond >= 100 ? Math.round(perSecond).toLocaleString('en') : perSecond.toFixed(1)}/s`

/** A part of all, with as many places as say something. */
export const partWords = (part: number) => `${(part * 100).toFixed(part > 0 && part < 0.1 ? 1 : 0)}%`

/** How many requests are under way at once. */
export const depthWords = (requests: number) => requests.toFixed(requests >= 100 ? 0 : 1)

export const sizeWords = (bytes: number) => formatBytes(BigInt(Math.round(bytes)))

export const throughputWords = (bytesPerSecond: number) => `${formatBytes(BigInt(Math.round(bytesPerSecond)))}/s`
