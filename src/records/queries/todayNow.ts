import type { Pool, System } from '@/core/estate'
import { letStand, todayFindings, type StandingException } from '@/core/today'
import type { AgainstPromise, PoolFilling } from '@/core/views'
import { changeSummaries } from '../changes'
import { rows, type Scope } from '../database'
import { estateNow, workerSilentSeconds } from '../inventory'
import { forecastsOf } from '../metrics'
import { byDate } from './capacityPage'
import { againstPromise } from './performancePage'
import { standingFindings } from './rowPage'

const mostUnproven = 20
/** So many volumes are drawn beside what is promised of them. */
const mostPromised = 6

/** What Today shows besides what stands in it: each is made from what was read for the findings. */
type TodayNow = ReturnType<typeof letStand> & {
  readonly filling: readonly PoolFilling[]
  readonly answering: AgainstPromise
}

/** What Today puts first, as it is now. */
export async function todayNow(scope: Scope, systems: readonly System[], pools: readonly Pool[]): Promise<TodayNow> {
  // One after another: in a transaction all go over one connection, which answers one question at a time.
  const standing = await standingFindings(scope, null)
  const unproven = await changeSummaries(scope, mostUnproven, { states: ['unproven'] })
  const silent = await workerSilentSeconds(scope)
  const answering = await againstPromise(scope, mostPromised)
  const outlooks = await forecastsOf(
    scope,
    pools.map(({ id }) => id),
  )
  const open = standing.filter(each => each.exception === null)
  const [worst] = answering.lines
  const own = {
    ...(answering.missing === 0 || worst === undefined ? {} : { slow: { count: answering.missing, worst } }),
    workerSilentSeconds: silent,
    now: new Date(),
    unproven: unproven.map(({ id, title, refusal }) => ({ id, title, why: refusal?.why ?? '' })),
  }
  const now = await estateNow(scope)
  const found = todayFindings(systems, pools, open, own, outlooks)
  return {
    ...letStand(found, await standingExceptions(scope, now), now),
    ...{ filling: byDate(pools, systems, outlooks), answering },
  }
}

/** The exceptions that count now; of several for one finding that which lasts longest first. */
async function standingExceptions(scope: Scope, now: Date): Promise<StandingException[]> {
  const found = await rows<Omit<StandingException, 'until'> & { readonly until: Date }>(
    scope,
    `select finding_key as "findingKey", gravity, reason, signed_by as "signedBy", until from signed_exceptions
     where until > $1 order by until desc limit 2000`,
    [now.toISOString()],
  )
  return found.map(each => ({ ...each, until: each.until.toISOString() }))
}
