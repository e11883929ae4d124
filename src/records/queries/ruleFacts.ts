import { provisionableBytes } from '@/core/estate'
import type { PoolFacts, VolumeFacts } from '@/core/telling'
import { rows, type Scope } from '../database'
import { forecastsOf } from '../metrics'
import { objects } from '../objects'

/** Pools as rules look at them. */
export async function poolFacts(scope: Scope): Promise<PoolFacts[]> {
  const pools = await objects(scope, 'pools')
  const outlooks = await forecastsOf(
    scope,
    pools.map(({ id }) => id),
  )
  return pools.map(pool => {
    const outlook = outlooks.get(pool.id)
    const capacity = Number(provisionableBytes(pool))
    return {
      id: pool.id,
      name: pool.name,
      fillRatio: capacity === 0 ? 0 : Number(pool.writtenBytes) / capacity,
      daysToLimit: outlook === undefined || 'why' in outlook ? null : outlook.reachesLimit.p50,
    }
  })
}

/** More than anybody is told of one by one. */
const mostVolumes = 500

/** The slowest volumes that took at least so long. @param leastMilliseconds by the index metric_series_by_slowest */
export async function volumeFacts(scope: Scope, leastMilliseconds: number): Promise<VolumeFacts[]> {
  return rows<VolumeFacts>(
    scope,
    `select volumes.id, volumes.name, recent_p95 * 1000 as "p95Milliseconds" from metric_series
     join volumes on volumes.id = object_id and volumes.missing_since is null
     where metric = 'latency' and recent_p95 >= $1 order by recent_p95 desc limit ${mostVolumes}`,
    [leastMilliseconds / 1000],
  )
}
