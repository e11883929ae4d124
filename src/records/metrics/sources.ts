import type { RefusedWhy } from '@/core/metrics'
import { row, run, toJson, type Scope } from '../database'

/** How far what a system measures is known. */
export interface MetricSource {
  /** When its fields were last kept as samples. */
  readonly sampledAt: Date | undefined
  /** Until when what was asked of its volumes is known. */
  readonly countedAt: Date | undefined
  /** Since when nothing was kept that the system may have kept itself. */
  readonly gapSince: Date | undefined
  /** Why it has no history of its own, where it has said so. */
  readonly noHistory: string | undefined
  /** Samples that were not kept, by why. */
  readonly refused: Readonly<Record<string, number>>
}

export async function metricSource(scope: Scope, systemId: string): Promise<MetricSource> {
  const found = await row<{
    readonly sampled_at: Date | null
    readonly counted_at: Date | null
    readonly gap_since: Date | null
    readonly no_history: string | null
    readonly refused: Readonly<Record<string, number>>
  }>(scope, 'select sampled_at, counted_at, gap_since, no_history, refused from metric_sources where system_id = $1', [
    systemId,
  ])
  return {
    sampledAt: found?.sampled_at ?? undefined,
    countedAt: found?.counted_at ?? undefined,
    gapSince: found?.gap_since ?? undefined,
    noHistory: found?.no_history ?? undefined,
    refused: found?.refused ?? {},
  }
}

/** Nothing has been kept since an instant: what the system has kept itself is asked for, also by another process. */
export const noteGap = (scope: Scope, systemId: string, since: Date) =>
  run(
    scope,
    `insert into metric_sources (system_id, gap_since) values ($1, $2)
     on conflict (system_id) do update set gap_since = least(metric_sources.gap_since, excluded.gap_since)`,
    [systemId, since.toISOString()],
  )

/** What was asked of its volumes is known until an instant. */
export const noteCounted = (scope: Scope, systemId: string, until: Date) =>
  run(
    scope,
    `insert into metric_sources (system_id, counted_at) values ($1, $2)
     on conflict (system_id) do update set counted_at = excluded.counted_at`,
    [systemId, until.toISOString()],
  )

/**
 * What the system had kept of a longer time has come in: forecasts, and what is recent, do not know of it yet. By the
 * database's clock, to the millisecond: so it can be named again.
 */
export const noteCaughtUp = (scope: Scope, systemId: string) =>
  run(
    scope,
    `update metric_sources set caught_up_at = date_trunc('milliseconds', clock_timestamp()) where system_id = $1`,
    [systemId],
  )

/** When something last came in of which forecasts do not know yet; undefined where they know of all. Pools that have none are waited for. */
export async function caughtUp(scope: Scope): Promise<Date | undefined> {
  const found = await row<{ readonly at: Date | null }>(
    scope,
    `select max(caught_up_at) as at from metric_sources where caught_up_at is not null and exists (
       select from pools join growth_forecasts on pool_id = pools.id where pools.system_id = metric_sources.system_id)`,
  )
  return found?.at ?? undefined
}

/** Forecasts know of what had come in by then; what came while they were made, they may have missed. */
export const noteFollowed = (scope: Scope, until: Date) =>
  run(scope, 'update metric_sources set caught_up_at = null where caught_up_at <= $1', [until.toISOString()])

/** What has been refused before and what is now, together, by why. @param given the parameter that has the latter */
const refusedTogether = (given: string) => `(select coalesce(jsonb_object_agg(why, count), '{}') from (
         select key as why, sum(value::bigint) as count from (
           select * from jsonb_each_text(metric_sources.refused) union all select * from jsonb_each_text(${given}::jsonb)) as each
         group by key) as sums)`

/** Counts what of a system's samples could not be kept. */
export async function noteRefused(
  scope: Scope,
  systemId: string,
  refused: ReadonlyMap<RefusedWhy, number>,
): Promise<void> {
  if (refused.size === 0) return
  await run(
    scope,
    `insert into metric_sources (system_id, refused) values ($1, $2::jsonb)
     on conflict (system_id) do update set refused = ${refusedTogether('$2')}`,
    [systemId, toJson(Object.fromEntries(refused))],
  )
}

/**
 * A gap has been filled as far as the system could.
 * @param noHistory why it could not at all
 * @param stillSince from where on it may still have to say something
 */
export const noteFilled = (
  scope: Scope,
  systemId: string,
  noHistory: string | null,
  refused: ReadonlyMap<RefusedWhy | 'is of nothing that is known', number>,
  stillSince: Date | null = null,
) =>
  run(
    scope,
    `update metric_sources set gap_since = $4, no_history = $2, refused = ${refusedTogether('$3')}
     where system_id = $1`,
    [systemId, noHistory, toJson(Object.fromEntries(refused)), stillSince?.toISOString() ?? null],
  )
