import type { DriveEntity, ErrorCourse } from './entities'

const day = 86_400_000
/** Beyond that a drive would long have been exchanged: it errs no faster any more (days). */
const mostDays = 45

/** Errors that a drive has corrected by an instant: more from day to day, as its surface goes. */
export function correctedBy({ since, perDay, doublingDays }: ErrorCourse, at: number): number {
  const days = Math.max(0, (at - since) / day)
  const rising = Math.min(days, mostDays)
  const rate = 2 ** (rising / doublingDays)
  return Math.floor(perDay * ((doublingDays / Math.LN2) * (rate - 1) + rate * (days - rising)))
}

/** What a drive shows of its errors. Source: Redfish DriveMetrics. */
export const shownErrors = ({ errors }: DriveEntity, at: number) => ({
  CorrectableIOReadErrorCount: errors === undefined ? 0 : correctedBy(errors, at),
  CorrectableIOWriteErrorCount: 0,
  UncorrectableIOReadErrorCount: 0,
  UncorrectableIOWriteErrorCount: 0,
})
