import { driveStation, poolLoudness } from '@/core/performance'
import type { Pool } from '@/core/estate'
import type { AgainstPromise, PromisedLine, SlowLine, SlowList, SpanMean, VolumeLoad } from '@/core/views'
import { row, rows, type Scope } from '../database'
import { demandsIn, hourlyMeans, type MeanRow } from '../metrics'
import { objects } from '../objects'

const hour = 3_600_000
const day = 24 * hour
const courseDays = 7
const strataDays = 15
const loadMetrics = ['latency', 'requests', 'writes', 'throughput', 'hits']

const lines = `
  select volumes.id, volumes.name, volumes.pool_id as "poolId", pools.name as "poolName", service_classes.name as "className",
    service_classes.latency_milliseconds / 1000.0::float8 as "promisedSeconds", slow.recent_p95 as "p95Seconds",
    coalesce(asked.recent_mean, 0) as "requestsPerSecond", coalesce(moved.recent_mean, 0) as "bytesPerSecond"
  from metric_series as slow join volumes on volumes.id = slow.object_id join pools on pools.id = volumes.pool_id
  left join service_classes on service_classes.id = volumes.class_id
  left join metric_series as asked on asked.object_id = volumes.id and asked.metric = 'requests'
  left join metric_series as moved on moved.object_id = volumes.id and moved.metric = 'throughput'
  where slow.metric = 'latency' and slow.recent_p95 is not null and volumes.missing_since is null`

/** The slowest volumes of the last day: first those that miss their promise by most, then by how slow they are. */
export async function slowest(scope: Scope, limit: number): Promise<SlowList> {
  const found = await rows<SlowLine>(
    scope,
    `${lines} order by greatest(slow.recent_p95 / (service_classes.latency_milliseconds / 1000.0::float8), 1) desc nulls last,
       slow.recent_p95 desc, volumes.id limit $1`,
    [limit],
  )
  const counts = await row<{ readonly total: number; readonly missing: number }>(
    scope,
    `select count(*)::int as total, count(*) filter (where "p95Seconds" > "promisedSeconds")::int as missing from (${lines}) as all_lines`,
  )
  return { lines: found, total: counts?.total ?? 0, missing: counts?.missing ?? 0 }
}

/** Volumes beside what is promised of how they answer, those that miss it by most first. Only those with a promise are looked at. */
export async function againstPromise(scope: Scope, limit: number): Promise<AgainstPromise> {
  const found = await rows<PromisedLine & { readonly missing: number }>(
    scope,
    `select volumes.id, volumes.name, recent_p95 as "p95Seconds", latency_milliseconds / 1000.0::float8 as "promisedSeconds",
       (count(*) filter (where recent_p95 * 1000 > latency_milliseconds) over ())::int as missing
     from service_classes join volumes on class_id = service_classes.id
     join metric_series on object_id = volumes.id and metric = 'latency'
     where latency_milliseconds is not null and volumes.missing_since is null and recent_p95 is not null
     order by recent_p95 / latency_milliseconds desc, volumes.id limit $1`,
    [limit],
  )
  return { lines: found.map(({ missing: _, ...line }) => line), missing: found[0]?.missing ?? 0 }
}

/** One volume with its last week, its pool's, and who makes the pool slow. @param at the hour that is looked into; the worst of the week where it is not said */
export async function volumeLoad(
  scope: Scope,
  volumeId: string,
  now: Date,
  at: Date | undefined,
): Promise<VolumeLoad | undefined> {
  const [line] = await rows<SlowLine>(scope, `${lines} and volumes.id = $1`, [volumeId])
  const [pool] = line === undefined ? [] : await objects(scope, 'pools', { where: { id: line.poolId } })
  if (line === undefined || pool === undefined) return undefined
  const from = new Date(Math.floor((now.getTime() - courseDays * day) / hour) * hour)
  const found = await hourlyMeans(scope, [volumeId, pool.id], loadMetrics, from, now)
  const poolCourse = courseOf(found, pool.id, from, now)
  const worst = poolCourse.reduce((most, each) =>
    (each.latencySeconds ?? 0) > (most.latencySeconds ?? 0) ? each : most,
  )
  return {
    line,
    course: courseOf(found, volumeId, from, now),
    poolCourse,
    strata: await strataOf(scope, volumeId, now),
    ...(await loudIn(scope, pool, at ?? new Date(worst.at))),
  }
}

/** Every hour of a span, also those of which nothing is known. */
function courseOf(found: readonly MeanRow[], objectId: string, from: Date, until: Date): SpanMean[] {
  const means = new Map(
    found.filter(each => each.object_id === objectId).map(each => [`${each.metric} ${each.at.getTime()}`, each.mean]),
  )
  const hours = Math.floor((until.getTime() - from.getTime()) / hour) + 1
  return Array.from({ length: hours }, (_, index) => {
    const at = from.getTime() + index * hour
    const mean = (metric: string) => means.get(`${metric} ${at}`) ?? null
    return {
      at,
      latencySeconds: mean('latency'),
      requestsPerSecond: mean('requests'),
      writesPerSecond: mean('writes'),
      bytesPerSecond: mean('throughput'),
      hitRatio: mean('hits'),
    }
  })
}

async function strataOf(scope: Scope, volumeId: string, now: Date): Promise<(number | null)[][]> {
  const from = new Date(now.getTime() - strataDays * day)
  const found = await hourlyMeans(scope, [volumeId], ['latency'], from, now)
  const sums = Array.from({ length: 7 }, () => Array.from({ length: 24 }, () => ({ sum: 0, count: 0 })))
  for (const { at, mean } of found) {
    const cell = sums[(at.getUTCDay() + 6) % 7]?.[at.getUTCHours()]
    if (cell === undefined) continue
    cell.sum += mean
    cell.count += 1
  }
  return sums.map(hours => hours.map(({ sum, count }) => (count === 0 ? null : sum / count)))
}

/** Who was loud in a pool in one hour. */
async function loudIn(scope: Scope, pool: Pool, at: Date): Promise<Pick<VolumeLoad, 'loud' | 'lookedAt'>> {
  const { begin, demands, names } = await demandsIn(scope, pool, at)
  return { loud: { ...poolLoudness(driveStation(pool), demands), names }, lookedAt: begin.getTime() }
}
