import type { PoolTrend } from '@/core/estate'
import { rows, type Scope } from '../database'

/** How each pool has answered in the last day, and what comes to it in a day by its forecast. */
export const poolTrends = (scope: Scope): Promise<PoolTrend[]> =>
  rows<PoolTrend>(
    scope,
    `select pools.id as "poolId", recent_p95 as "p95Seconds", (forecast->>'slopeBytesPerDay')::float8 as "growthBytesPerDay"
     from pools left join metric_series on object_id = pools.id and metric = 'latency'
       left join growth_forecasts on pool_id = pools.id
     where pools.missing_since is null`,
  )
