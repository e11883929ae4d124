import type { Pool, PoolDemand } from '@/core/estate'
import { dataDrives, writeCostOf, type SizedDemand } from '@/core/performance'
import { row, rows, type Scope } from '../database'
import { object } from '../objects'

const hour = 3_600_000
const lookedBackDays = 7

export interface MeanRow {
  readonly object_id: string
  readonly metric: string
  readonly at: Date
  readonly mean: number
}

/** Means of every hour since an instant, from what packs say of themselves and what has come since. */
export async function hourlyMeans(
  scope: Scope,
  objectIds: readonly string[],
  metrics: readonly string[],
  from: Date,
  until: Date,
): Promise<MeanRow[]> {
  return rows<MeanRow>(
    scope,
    `select object_id, metric, at, sum(total) / sum(samples) as mean from (
       select object_id, metric, starts_at as at, total, samples
       from metric_series as series join metric_packs on series_id = series.id
       where object_id = any($1::uuid[]) and metric = any($2::text[]) and starts_at >= $3 and starts_at < $4
       union all
       select object_id, metric, date_trunc('hour', at) as at, value, 1
       from metric_series as series join (select * from metric_incoming_0 union all select * from metric_incoming_1) as come on series_id = series.id
       where object_id = any($1::uuid[]) and metric = any($2::text[]) and at >= $3 and at < $4
     ) as parts group by object_id, metric, at order by at`,
    [objectIds, metrics, from.toISOString(), until.toISOString()],
  )
}

/** Of a large pool so many of its busiest volumes are looked at; the others together ask for next to nothing. */
const mostDemands = 500

interface Demands {
  readonly begin: Date
  readonly demands: readonly SizedDemand[]
  readonly names: Readonly<Record<string, string>>
}

/** What each volume of a pool asked of its drives in one hour. */
export async function demandsIn(scope: Scope, pool: Pool, at: Date): Promise<Demands> {
  const begin = new Date(Math.floor(at.getTime() / hour) * hour)
  const volumes = await rows<{ readonly id: string; readonly name: string }>(
    scope,
    `select volumes.id, name from volumes join metric_series on object_id = volumes.id and metric = 'requests'
     where pool_id = $1 order by recent_mean desc nulls last, volumes.id limit ${mostDemands}`,
    [pool.id],
  )
  const means = await hourlyMeans(
    scope,
    volumes.map(({ id }) => id),
    ['requests', 'writes', 'throughput', 'hits'],
    begin,
    new Date(begin.getTime() + hour),
  )
  const found = new Map(means.map(each => [`${each.metric} ${each.object_id}`, each.mean]))
  const demands = volumes.map(({ id }): SizedDemand => {
    const of = (metric: string) => found.get(`${metric} ${id}`) ?? 0
    const [requests, writes] = [of('requests'), of('writes')]
    // A read that no cache answers asks one drive; a system that tells of no cache is taken to have none.
    const reads = (requests - writes) * (1 - of('hits'))
    const each = requests === 0 ? 0 : (reads + writes * writeCostOf(pool)) / requests
    return {
      id,
      requestsPerSecond: requests,
      stationRequestsEach: each / dataDrives(pool),
      bytesPerSecond: of('throughput'),
    }
  })
  return { begin, demands, names: Object.fromEntries(volumes.map(({ id, name }) => [id, name])) }
}

/** What was asked of a pool in the hour of its last week in which it answered slowest; undefined where none was measured. */
export async function worstDemand(scope: Scope, poolId: string, now: Date): Promise<PoolDemand | undefined> {
  const worst = await row<{ readonly at: Date }>(
    scope,
    `select starts_at as at from metric_series as series join metric_packs on series_id = series.id
     where object_id = $1 and metric = 'latency' and starts_at >= $2 and samples > 0
     order by total / samples desc, starts_at limit 1`,
    [poolId, new Date(now.getTime() - lookedBackDays * 24 * hour).toISOString()],
  )
  const pool = worst === undefined ? undefined : await object(scope, 'pools', poolId)
  if (worst === undefined || pool === undefined) return undefined
  const { begin, demands } = await demandsIn(scope, pool, worst.at)
  return { poolId, at: begin.toISOString(), demands }
}
