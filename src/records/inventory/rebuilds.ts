import type { Forecast } from '@/core/transfer'
import { v7 as uuid } from 'uuid'
import { row, rows, run, type Scope } from '../database'

export interface WorkSeen {
  readonly locator: string
  readonly poolLocator: string
  readonly kind: 'rebuild' | 'move'
  readonly state: 'running' | 'done' | 'failed'
  readonly doneRatio: number
  readonly bytes: bigint
  /** By the system's own clock; null where it does not say. */
  readonly startedAt: string | null
  readonly endedAt: string | null
}

/** Whether a piece of work is on record: its forecast is made once, before it has run far. */
export const isWorkKnown = async (scope: Scope, systemId: string, locator: string) =>
  (await row(scope, 'select id from rebuilds where system_id = $1 and locator = $2', [systemId, locator])) !== undefined

/**
 * Keeps work of a cluster with the forecast that was made when it was first seen; work that had ended by then was not
 * forecast, but is learned from. Times are the system's own, else when it was seen by the estate's clock.
 */
export async function keepNewWork(
  scope: Scope,
  systemId: string,
  work: WorkSeen,
  forecast: Forecast,
  estateAt: Date,
): Promise<void> {
  await run(
    scope,
    `insert into rebuilds (id, system_id, locator, pool_id, kind, bytes, base_seconds, p10_seconds, p50_seconds, p90_seconds, bound_by,
       started_estate_at, done_ratio, state, was_forecast)
     select $1, $2, $3, (select id from pools where system_id = $2 and locator = $4), $5, $6, $7, $8, $9, $10, $11, $12, 0, 'running', $13
     on conflict (system_id, locator) do nothing`,
    [
      uuid(),
      systemId,
      work.locator,
      work.poolLocator,
      work.kind,
      work.bytes.toString(),
      forecast.baseSeconds,
      forecast.p10Seconds,
      forecast.p50Seconds,
      forecast.p90Seconds,
      forecast.boundBy,
      work.startedAt ?? estateAt.toISOString(),
      work.state === 'running',
    ],
  )
}

/** How far it is now; where the system does not say when it ended, the first time that it is seen so is its end. */
export const noteWork = (scope: Scope, systemId: string, work: WorkSeen, estateAt: Date) =>
  run(
    scope,
    `update rebuilds set done_ratio = $3, state = $4,
       ended_estate_at = case when $4 = 'running' then null else coalesce(ended_estate_at, $5) end
     where system_id = $1 and locator = $2 and ended_estate_at is null and (done_ratio, state) is distinct from ($3::float8, $4::text)`,
    [systemId, work.locator, work.doneRatio, work.state, work.endedAt ?? estateAt.toISOString()],
  )

/** Actual ÷ base seconds of earlier work of a kind, latest last. */
export async function workMisses(scope: Scope, kind: 'rebuild' | 'move'): Promise<number[]> {
  const found = await rows<{ readonly miss: number }>(
    scope,
    `select extract(epoch from ended_estate_at - started_estate_at)::float8 / base_seconds as miss from rebuilds
     where kind = $1 and state = 'done' and base_seconds > 60 order by ended_estate_at desc limit 50`,
    [kind],
  )
  return found.map(({ miss }) => miss).reverse()
}
