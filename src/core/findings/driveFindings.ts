import { suffixOf } from '../estate'
import { errorTrend } from '../health'
import type { Sample } from '../metrics'
import { countWords } from '../units'
import type { Finding } from './Finding'
import { found } from './found'

/** A drive whose errors are counted. */
export interface CountedDrive {
  readonly id: string
  /** Where it stands in its system. */
  readonly name: string
  readonly serial: string
  readonly systemName: string
  /** Null where it carries nothing. */
  readonly poolId: string | null
  readonly poolName: string | null
  /** How often it read or wrote again until it succeeded, and how often it gave up; each in the order of time. */
  readonly corrected: readonly Sample[]
  readonly lost: readonly Sample[]
}

/** Drives that err more from week to week, or have lost what they held. @param now by the estate's time (milliseconds since 1970) */
export const driveFindings = (drives: readonly CountedDrive[], now: number): Finding[] =>
  drives.flatMap(drive => errorFinding(drive, now) ?? [])

function errorFinding(drive: CountedDrive, now: number): Finding | undefined {
  const { id, name, serial, systemName, poolName } = drive
  const called = `Drive ${suffixOf(serial)} in ${systemName}, ${name}`
  const corrected = errorTrend(drive.corrected, now)
  const lost = errorTrend(drive.lost, now).lastWeek
  if (!corrected.isRising && lost === 0) return undefined
  const doubling =
    corrected.doublingDays === null ? '' : ` They double every ${corrected.doublingDays.toFixed(0)} days or so.`
  return found(
    'drive-errors',
    id,
    lost > 0 ? 'now' : 'soon',
    lost > 0
      ? `${called} could not read or write ${countWords(lost, 'time', 'times')}`
      : `${called} errs more from week to week`,
    {
      evidence: `${serial} corrected ${countWords(corrected.lastWeek, 'error', 'errors')} in the last week, ${corrected.weekBefore.toLocaleString('en')} in the week before.${doubling}`,
      risk:
        poolName === null
          ? 'It carries nothing yet. A pool that is made with it would begin with a drive that is about to fail.'
          : `It still answers right, and ${poolName} has lost nothing. Drives that err so fail sooner than others, and each error makes requests wait.`,
      remedy:
        poolName === null
          ? 'Exchange it before it is used.'
          : 'Exchange it while its pool is whole: once another fails, what it can no longer give would be missing.',
      offline: `Have a drive of its kind at hand, and light it before anything is pulled.`,
    },
  )
}
