import { covers } from '../findings'
import type { TodayFinding } from './todayFindings'

/** Who lets something stand, why, and until when. */
export interface StandingException {
  readonly findingKey: string
  /** How grave it may be; null for however grave. */
  readonly gravity: 'now' | 'soon' | 'note' | null
  readonly reason: string
  readonly signedBy: string
  readonly until: string
}
export interface StoodFinding extends TodayFinding {
  readonly exception: StandingException
}

/** Without a worker nothing is looked at: nobody can let that stand. */
export const mayStand = ({ key }: Pick<TodayFinding, 'key'>) => key !== 'no-worker'

/** What calls for somebody, and what somebody has said may stand until a day that is not over. */
export function letStand(
  findings: readonly TodayFinding[],
  exceptions: readonly StandingException[],
  now: Date,
): { readonly open: readonly TodayFinding[]; readonly stood: readonly StoodFinding[] } {
  const counting = exceptions.filter(({ until }) => Date.parse(until) > now.getTime())
  const stood = findings.filter(mayStand).flatMap((finding): StoodFinding[] => {
    const exception = counting.find(each => each.findingKey === finding.key && covers(each.gravity, finding.gravity))
    return exception === undefined ? [] : [{ ...finding, exception }]
  })
  const keys = new Set(stood.map(({ key }) => key))
  return { open: findings.filter(({ key }) => !keys.has(key)), stood }
}
