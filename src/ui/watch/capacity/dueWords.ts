import type { NoOutlook, Outlook } from '@/core/capacity'
import type { Gravity } from '../../parts/State'

const dayMilliseconds = 86_400_000
/** Within so many days somebody has to act: drives take weeks to come. */
const soonDays = 60

export const dateWords = (at: number, isYearToo = true) =>
  new Date(at).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    timeZone: 'UTC',
    ...(isYearToo ? { year: 'numeric' } : {}),
  })

/** When a pool's limit is likely to be reached, in words. */
export function dueWords(outlook: Outlook | NoOutlook | undefined): string {
  if (outlook === undefined) return 'nothing measured yet'
  if (outlook.usedBytes >= outlook.limitBytes) return 'past it'
  if ('why' in outlook) return outlook.why
  const { p50 } = outlook.reachesLimit
  if (p50 === null) return 'not within 3 years'
  return dateWords(outlook.today + p50 * dayMilliseconds)
}

/** The days between which four of five such courses reach it; undefined where one of them never does. */
export function dueRange(outlook: Outlook | NoOutlook | undefined): string | undefined {
  if (outlook === undefined || 'why' in outlook) return undefined
  const { p10, p90 } = outlook.reachesLimit
  if (p90 === null || p90 === 0) return undefined
  const early = dateWords(outlook.today + p90 * dayMilliseconds, p90 > 300)
  return p10 === null
    ? `${early} or later`
    : `${early} – ${dateWords(outlook.today + p10 * dayMilliseconds, p10 > 300)}`
}

/** How much it matters, and in a word. */
export function dueState(outlook: Outlook | NoOutlook | undefined): {
  readonly gravity: Gravity
  readonly words: string
} {
  if (outlook === undefined) return { gravity: 'unknown', words: 'not known' }
  if (outlook.usedBytes >= outlook.limitBytes) return { gravity: 'now', words: 'past its limit' }
  if ('why' in outlook) return { gravity: 'unknown', words: 'not known' }
  const { p50 } = outlook.reachesLimit
  return p50 !== null && p50 <= soonDays
    ? { gravity: 'soon', words: 'act soon' }
    : { gravity: 'fine', words: 'in order' }
}
