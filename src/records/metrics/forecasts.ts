import { outlookOf, type NoOutlook, type Outlook } from '@/core/capacity'
import { provisionableBytes } from '@/core/estate'
import { dailyLevels } from '@/core/metrics'
import { row, rows, run, toJson, type Scope } from '../database'
import { objects } from '../objects'
import { dailyLast } from './read'
import { volumesThatMatter, type VolumeFound } from './volumesThatMatter'

/** How far back a forecast looks: what is older says nothing of today's growth (days). */
const lookedAtDays = 120
const poolsAtOnce = 200

/** Makes the forecast of every pool anew, from what was measured. @returns how many pools have one */
export async function keepForecasts(scope: Scope, now: Date): Promise<number> {
  const pools = await objects(scope, 'pools')
  const since = new Date(now.getTime() - lookedAtDays * 86_400_000)
  let made = 0
  for (let first = 0; first < pools.length; first += poolsAtOnce) {
    const some = pools.slice(first, first + poolsAtOnce)
    const measured = await dailyLast(
      scope,
      'written',
      some.map(({ id }) => id),
      since,
    )
    for (const pool of some) {
      const levels = dailyLevels(measured.get(pool.id) ?? [])
      if (levels === undefined) continue
      const volumes = await volumesThatMatter(scope, pool.id, now)
      await keep(scope, pool.id, volumes, outlookOf(levels, Number(provisionableBytes(pool))), now)
      made += 1
    }
  }
  return made
}

/** What growth is told over (days). */
const growthDays = 28

/**
 * Keeps with each series what it was four weeks ago, or at its beginning where it is younger: growth of a hundred thousand is then told
 * without a look into their packs. What is a day old is left.
 */
export async function keepPast(scope: Scope, now: Date): Promise<void> {
  const from = new Date(now.getTime() - growthDays * 86_400_000)
  await run(
    scope,
    `with past as (
       select distinct on (series_id) series_id, metric_packs.last_at, metric_packs.last_value
       from metric_packs join metric_series on id = series_id
       where starts_at >= $1 and (past_at is null or past_at < $1) order by series_id, starts_at
     )
     update metric_series set past_at = past.last_at, past_value = past.last_value from past where id = series_id`,
    [from.toISOString()],
  )
}

async function keep(
  scope: Scope,
  poolId: string,
  volumes: readonly VolumeFound[],
  outlook: Outlook | NoOutlook,
  now: Date,
): Promise<void> {
  const days = 'why' in outlook ? null : outlook.reachesLimit.p50
  await run(
    scope,
    `insert into growth_forecasts (pool_id, made_at, forecast, reaches_at, volumes_found) values ($1, $2, $3::jsonb, $4, $5::jsonb)
     on conflict (pool_id) do update set made_at = excluded.made_at, forecast = excluded.forecast, reaches_at = excluded.reaches_at,
       volumes_found = excluded.volumes_found`,
    [
      poolId,
      now.toISOString(),
      toJson(outlook),
      days === null ? null : new Date(outlook.today + days * 86_400_000).toISOString(),
      toJson(volumes),
    ],
  )
}

/**
 * Whether forecasts are to be made: the last are older than an instant, or a pool has none whose past is known as far as it can be.
 * A pool whose system has still to say what it has kept waits: it would be told that too little is known of it.
 */
export async function areForecastsDue(scope: Scope, olderThan: Date): Promise<boolean> {
  const found = await row<{ readonly is_due: boolean }>(
    scope,
    `select exists (select from growth_forecasts where made_at < $1) or exists (
       select from pools join metric_sources using (system_id)
       where pools.missing_since is null and gap_since is null and sampled_at is not null
         and not exists (select from growth_forecasts where pool_id = pools.id)) as is_due`,
    [olderThan.toISOString()],
  )
  return found?.is_due === true
}

/** The forecasts of pools, by pool. */
export async function forecastsOf(
  scope: Scope,
  poolIds: readonly string[],
): Promise<ReadonlyMap<string, Outlook | NoOutlook>> {
  const found = await rows<{ readonly pool_id: string; readonly forecast: Outlook | NoOutlook }>(
    scope,
    'select pool_id, forecast from growth_forecasts where pool_id = any($1::uuid[])',
    [poolIds],
  )
  return new Map(found.map(each => [each.pool_id, each.forecast]))
}
