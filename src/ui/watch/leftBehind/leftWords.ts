import { countAtStart, countWords, formatBytes } from '@/core/units'
import type { LeftBehind, LeftWhy } from '@/core/views'

export const bytesOf = (value: number): string => formatBytes(BigInt(Math.round(value)))

/** What is said of each list, and what is done about it. */
export const listWords: Readonly<
  Record<LeftWhy, { readonly title: string; readonly counts: string; readonly back: string; readonly none: string }>
> = {
  unseen: {
    title: 'Seen by nobody',
    counts:
      'In use and written to, but mapped to no host, its snapshots to none either, its files shared by nobody, and nothing asked of it in the last day.',
    back: 'Written',
    none: 'Every volume that was written to is seen by somebody.',
  },
  idle: {
    title: 'Asked by nobody',
    counts: 'Mapped or shared, but without one request for so long.',
    back: 'Written',
    none: 'Every volume that somebody sees is asked for something.',
  },
  'not growing': {
    title: 'Thick, and no longer growing',
    counts:
      'Its whole size is set aside for it, and what is written has not grown for so long. Thin, it would take what it has written.',
    back: 'Set aside beside it',
    none: 'No thick volume has stopped growing.',
  },
  'without a rule': {
    title: 'Snapshots that no rule keeps',
    counts:
      'Older than that, taken by hand or left of a schedule that is no more; not held, not mapped, and nothing cloned from it.',
    back: 'Only it holds',
    none: 'A schedule, a hold, a clone or a host stands behind every snapshot.',
  },
}

const subjects: Readonly<Record<LeftWhy, readonly [string, string]>> = {
  unseen: ['volume that nobody sees', 'volumes that nobody sees'],
  idle: ['that nobody asks', 'that nobody asks'],
  'not growing': ['thick one that no longer grows', 'thick ones that no longer grow'],
  'without a rule': ['snapshot that no rule keeps', 'snapshots that no rule keeps'],
}

/** What could come back, in a sentence. */
export function leftSentence({ days, lists }: LeftBehind): { readonly first: string; readonly then: string } {
  const found = lists.filter(({ count }) => count > 0)
  const [begin, ...more] = found
  if (begin === undefined)
    return { first: 'Nothing is left behind.', then: `All that takes space has served somebody within ${days} days.` }
  const whole = lists.reduce((sum, { bytes }) => sum + bytes, 0)
  const parts = more.map(({ why, count }) => countWords(count, ...subjects[why]))
  return {
    first: `${bytesOf(whole)} may have been left behind.`,
    then: `${countAtStart(begin.count, ...subjects[begin.why])}${parts.length === 0 ? '' : `, ${parts.join(', ')}`}.`,
  }
}
