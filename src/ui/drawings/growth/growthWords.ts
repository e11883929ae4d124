import type { NoOutlook, Outlook } from '@/core/capacity'
import { formatBytes } from '@/core/units'
import type { DayPoint } from './growthShape'

export const bytesWords = (bytes: number) => formatBytes(BigInt(Math.round(bytes)))
export const dayWords = (at: number) =>
  new Date(at).toLocaleDateString('en', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })

/** A growth in words, for whom the drawing says nothing. */
export function growthInWords(outlook: Outlook | NoOutlook, days: readonly DayPoint[]): string {
  const past = `${bytesWords(days[0]?.bytes ?? 0)} ${days.length} days ago, ${bytesWords(outlook.usedBytes)} today`
  if ('why' in outlook) return past
  const { p50 } = outlook.reachesLimit
  const due = p50 === null ? 'its limit is not within reach' : `its limit is reached in ${p50} days`
  return `${past}; ${due}`
}
