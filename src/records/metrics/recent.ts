import { metricNames, metrics, Sketch, type Metric } from '@/core/metrics'
import { rows, run, type Scope } from '../database'

/** What is recent: the last day. */
const recentMilliseconds = 24 * 3_600_000
const seriesAtOnce = 2000
const distributions = metricNames.filter(metric => (metrics[metric] as Metric).isDistribution === true)

/**
 * Keeps with each series how it was in the last day: its mean, and what a twentieth of its values lay above, from the sketches of its
 * hours. A list of the slowest of a hundred thousand is then a look into one index.
 */
export async function keepRecent(scope: Scope, now: Date): Promise<void> {
  const since = new Date(now.getTime() - recentMilliseconds).toISOString()
  await run(
    scope,
    `with recent as (
       select series_id, sum(total) / sum(samples) as mean from metric_packs join metric_series on id = series_id
       where starts_at >= $1 and metric = any($2::text[]) group by series_id
     )
     update metric_series set recent_mean = recent.mean, recent_at = $3 from recent where id = series_id`,
    [since, ['latency', 'requests', 'throughput'], now.toISOString()],
  )
  await keepActive(scope, since)
  let last = 0
  for (;;) {
    const found = await rows<{ readonly id: number; readonly sketches: readonly Buffer[] }>(
      scope,
      `select id, array_agg(sketch) as sketches from metric_series join metric_packs on series_id = id
       where id > $1 and metric = any($2::text[]) and starts_at >= $3 and sketch is not null
       group by id order by id limit ${seriesAtOnce}`,
      [last, distributions, since],
    )
    if (found.length === 0) break
    await run(
      scope,
      `update metric_series set recent_p95 = recent.p95 from unnest($1::int[], $2::float8[]) as recent (id, p95)
       where metric_series.id = recent.id`,
      [found.map(({ id }) => id), found.map(({ sketches }) => highOf(sketches))],
    )
    last = found.at(-1)?.id ?? last
  }
  // What nobody has asked for a day is not slow.
  await run(
    scope,
    `update metric_series set recent_p95 = null, recent_mean = null
     where recent_at < $1 and (recent_p95 is not null or recent_mean is not null)`,
    [since],
  )
}

/**
 * When each was asked for something last; the packs of a series are looked through once, then only those of the last day. Never, as far as
 * is known: `-infinity`.
 */
async function keepActive(scope: Scope, since: string): Promise<void> {
  await run(
    scope,
    `with asked as (select id, active_at from metric_series where metric = 'requests'),
     seen as (
       select series_id, coalesce(max(packs.last_at) filter (where packs.most > 0), '-infinity') as at
       from metric_packs as packs join asked on asked.id = series_id
       where active_at is null or starts_at >= $1 group by series_id
     )
     update metric_series set active_at = seen.at from seen
     where metric_series.id = seen.series_id and (active_at is null or active_at < seen.at)`,
    [since],
  )
}

function highOf(sketches: readonly Buffer[]): number | null {
  const whole = new Sketch()
  for (const each of sketches) whole.merge(Sketch.unpacked(each))
  return whole.quantile(0.95) ?? null
}
