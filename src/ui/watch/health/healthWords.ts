import { daysToWearOut, sensorState, type Sensed } from '@/core/health'
import { countAtStart, countWords } from '@/core/units'
import type { HealthPage, SourceLine, WornLine } from '@/core/views'
import type { Gravity } from '../../parts/State'

const yearDays = 365

/** When a drive's flash is worn out, in words; nothing of a drive that does not say. */
export function wearOutWords({ wearRatio, powerOnHours }: Pick<WornLine, 'wearRatio' | 'powerOnHours'>): string {
  const days = daysToWearOut(wearRatio, powerOnHours)
  if (days === null) return ''
  if (days === 0) return 'worn out'
  return days > 10 * yearDays
    ? 'beyond 10 years'
    : days > 2 * yearDays
      ? `in ${(days / yearDays).toFixed(1)} years`
      : `in ${countWords(days, 'day', 'days')}`
}

/** What a drive has counted of its errors; nothing of one that does not say. */
export function errorWords({ correctedErrors, lostErrors }: Pick<WornLine, 'correctedErrors' | 'lostErrors'>): string {
  if (correctedErrors === null && lostErrors === null) return ''
  const lost = lostErrors === null || lostErrors === 0 ? '' : `, ${lostErrors.toLocaleString('en')} for good`
  return correctedErrors === 0 && lost === '' ? 'none' : `${(correctedErrors ?? 0).toLocaleString('en')}${lost}`
}

const sensorWords = {
  fine: 'in order',
  near: 'near its caution',
  past: 'past its caution',
  'not known': 'no caution stated',
}
const sensorGravity: Readonly<Record<ReturnType<typeof sensorState>, Gravity>> = {
  fine: 'fine',
  near: 'soon',
  past: 'now',
  'not known': 'unknown',
}

export function sensorMark(sensor: Sensed): { readonly gravity: Gravity; readonly words: string } {
  const state = sensorState(sensor)
  return { gravity: sensorGravity[state], words: sensorWords[state] }
}

/** What of a system's samples was not kept; nothing where all were. */
export function refusedWords({ refused }: Pick<SourceLine, 'refused'>): string {
  return Object.entries(refused)
    .map(([why, count]) => `${count.toLocaleString('en')} ${why}`)
    .join(', ')
}

/** What matters of health: what stands, gravest first, then what is coming. */
export function healthSentence(page: HealthPage): { readonly first: string; readonly then: string } {
  const open = page.findings.filter(({ exception }) => exception === null)
  const grave = open.filter(({ finding }) => finding.gravity === 'now').length
  const silent = page.sources.filter(({ reach }) => reach !== 'answering').length
  const hurt = page.drives.filter(({ state }) => state !== 'fine').length
  const parts = [
    grave === 0 ? '' : `${countWords(grave, 'finding calls', 'findings call')} for work at once`,
    silent === 0 ? '' : `${countWords(silent, 'system is', 'systems are')} silent`,
    hurt === 0 ? '' : `${countWords(hurt, 'drive is', 'drives are')} not well`,
  ].filter(part => part !== '')
  const [first = ''] = parts
  return {
    first:
      parts.length === 0 ? 'Nothing calls for work.' : `${first.charAt(0).toUpperCase()}${parts.join(', ').slice(1)}.`,
    then: `${countAtStart(page.driveCount, 'drive', 'drives')} and ${countWords(page.sensorCount, 'sensor', 'sensors')} are watched${
      open.length > grave
        ? `; ${countWords(open.length - grave, 'further finding stands', 'further findings stand')}`
        : ''
    }.`,
  }
}
