import type { Pool, System } from '@/core/estate'
import { todayFindings, type TodayFinding } from '@/core/today'
import { changeSummaries } from '../changes'
import type { Scope } from '../database'
import { workerSilentSeconds } from '../inventory'
import { forecastsOf } from '../metrics'
import { missedLatency } from './performancePage'
import { standingFindings } from './rowPage'

const mostUnproven = 20

/** What Today puts first, as it is now. */
export async function todayNow(
  scope: Scope,
  systems: readonly System[],
  pools: readonly Pool[],
): Promise<TodayFinding[]> {
  // One after another: in a transaction all go over one connection, which answers one question at a time.
  const standing = await standingFindings(scope, null)
  const unproven = await changeSummaries(scope, mostUnproven, { states: ['unproven'] })
  const silent = await workerSilentSeconds(scope)
  const slow = await missedLatency(scope)
  const outlooks = await forecastsOf(
    scope,
    pools.map(({ id }) => id),
  )
  const open = standing.filter(each => each.exception === null)
  const own = {
    ...(slow === undefined ? {} : { slow }),
    workerSilentSeconds: silent,
    now: new Date(),
    unproven: unproven.map(({ id, title, refusal }) => ({ id, title, why: refusal?.why ?? '' })),
  }
  return todayFindings(systems, pools, open, own, outlooks)
}
