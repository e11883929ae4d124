import { measuredKinds, metricNames, metrics, type MeasuredKind, type Metric, type MetricName } from '@/core/metrics'
import type { FieldOf } from '@/core/estate'
import type { Sequelize } from 'sequelize'
import { inTransaction, rows, run, type Scope } from '../database'
import { columnOf, tableOf } from '../objects'
import { openTable } from './incoming'

/** Each field of each kind that is kept as a series. */
const levels = metricNames.flatMap(metric =>
  measuredKinds.flatMap(kind => {
    const { of, isFromNothing = false } = metrics[metric] as Metric
    const level = of[kind]
    return level === undefined
      ? []
      : [{ metric, kind, isFromNothing, ...level, column: columnOf(level.field as FieldOf<MeasuredKind>) }]
  }),
)

/** A system is what it is measured of itself; whatever else is measured stands at a place of one. */
export const systemIdOf = (kind: MeasuredKind) => (kind === 'systems' ? 'id' : 'system_id')
/**
 * Some of all that is measured, whatever kind it is of, as a query.
 * @param columns of one kind, from a row of it that is named object @param ids the parameter that has the ids
 */
export const eachMeasured = (columns: (kind: MeasuredKind) => string, ids = '$1'): string =>
  measuredKinds
    .map(
      kind =>
        `select ${columns(kind)}, '${kind}' as kind from ${tableOf(kind)} as object where object.id = any(${ids}::uuid[])`,
    )
    .join(' union all ')

const isThere = (kind: MeasuredKind) => (kind === 'systems' ? 'true' : 'object.missing_since is null')
const placedKinds = measuredKinds.filter(kind => kind !== 'systems')

/** Makes the series that objects of a system have not yet. */
async function addSeries(scope: Scope, systemId: string): Promise<void> {
  for (const { metric, kind, column, isFromNothing } of levels)
    await run(
      scope,
      `insert into metric_series (system_id, kind, object_id, metric)
       select $1, $2, id, $3 from ${tableOf(kind)} as object where ${systemIdOf(kind)} = $1 and ${isThere(kind)}
         ${isFromNothing ? `and ${column} > 0` : `and ${column} is not null`}
         and not exists (select from metric_series where object_id = object.id and metric = $3)`,
      [systemId, kind, metric],
    )
}

/**
 * Keeps what fields of a system's objects have now as samples of an instant: where they have become otherwise, and once a day where not.
 * What was measured is known to the records already, whatever the system speaks.
 */
export async function sampleLevels(database: Sequelize, systemId: string, at: Date): Promise<void> {
  await inTransaction(database, async scope => {
    await addSeries(scope, systemId)
    const table = await openTable(scope)
    for (const { metric, kind, column, everyMinutes } of levels)
      await run(
        scope,
        // One join alone: of series that were just made the planner knows nothing, and of two it would do one row by row.
        `with noted as (
           update metric_series as series set last_at = $4, last_value = object.${column}::float8
           from ${tableOf(kind)} as object
           where object.id = series.object_id and series.system_id = $1 and series.metric = $2 and series.kind = $3
             and ${isThere(kind)} and object.${column} is not null
             and (series.last_at is null or series.last_at <= $4::timestamptz - make_interval(mins => $5)
               and (series.last_value is distinct from object.${column}::float8
                 or date_trunc('day', series.last_at at time zone 'utc') < date_trunc('day', $4::timestamptz at time zone 'utc')))
           returning series.id, series.last_value as value
         )
         insert into ${table} (series_id, at, value) select id, $4, value from noted`,
        [systemId, metric, kind, at.toISOString(), everyMinutes],
      )
    await run(
      scope,
      `insert into metric_sources (system_id, sampled_at) values ($1, $2)
       on conflict (system_id) do update set sampled_at = excluded.sampled_at`,
      [systemId, at.toISOString()],
    )
  })
}

/** The series of what stands at some places of a system, by place and metric; those that are not yet there are made. */
export async function seriesAt(
  scope: Scope,
  systemId: string,
  places: readonly string[],
  wanted: readonly MetricName[],
): Promise<(locator: string, metric: MetricName) => number | undefined> {
  const objects = placedKinds
    .map(
      kind => `select id, locator, '${kind}' as kind from ${tableOf(kind)} where system_id = $1 and locator = any($2)`,
    )
    .join(' union all ')
  await run(
    scope,
    `insert into metric_series (system_id, kind, object_id, metric)
     select $1, kind, id, metric from (${objects}) as object cross join unnest($3::text[]) as metric
     where not exists (select from metric_series where object_id = object.id and metric_series.metric = metric.metric)`,
    [systemId, places, wanted],
  )
  const found = await rows<{ readonly id: number; readonly locator: string; readonly metric: MetricName }>(
    scope,
    `select series.id, locator, metric from metric_series as series join (${objects}) as object on object.id = series.object_id
     where metric = any($3::text[])`,
    [systemId, places, wanted],
  )
  const ids = new Map(found.map(each => [`${each.metric} ${each.locator}`, each.id]))
  return (locator, metric) => ids.get(`${metric} ${locator}`)
}

/** The places of the pools in which volumes of a system stand, by the volume's place. */
export async function poolPlaces(scope: Scope, systemId: string): Promise<ReadonlyMap<string, string>> {
  const found = await rows<{ readonly volume: string; readonly pool: string }>(
    scope,
    `select volumes.locator as volume, pools.locator as pool from volumes join pools on pools.id = pool_id
     where volumes.system_id = $1 and volumes.missing_since is null`,
    [systemId],
  )
  return new Map(found.map(({ volume, pool }) => [volume, pool]))
}
