import { unpackSamples, mergeSamples, type MetricName, type Sample, type Samples } from '@/core/metrics'
import { rows, type Scope } from '../database'
import { incomingTables } from './incoming'

const incoming = `(${incomingTables.map(table => `select series_id, at, value from ${table}`).join(' union all ')})`

/** The last level of each day since an instant (UTC), of some objects, in the order of time. Nothing is opened for it. */
export async function dailyLast(
  scope: Scope,
  metric: MetricName,
  objectIds: readonly string[],
  since: Date,
): Promise<ReadonlyMap<string, readonly Sample[]>> {
  if (objectIds.length === 0) return new Map()
  const found = await rows<{ readonly object_id: string; readonly at: Date; readonly value: number }>(
    scope,
    `select distinct on (object_id, date_trunc('day', at at time zone 'utc')) object_id, at, value from (
       select object_id, packs.last_at as at, packs.last_value as value
       from metric_series as series join metric_packs as packs on packs.series_id = series.id
       where metric = $1 and object_id = any($2::uuid[]) and starts_at >= $3
       union all
       select object_id, at, value from metric_series as series join ${incoming} as come on come.series_id = series.id
       where metric = $1 and object_id = any($2::uuid[]) and at >= $3
     ) as levels order by object_id, date_trunc('day', at at time zone 'utc'), at desc`,
    [metric, objectIds, since.toISOString()],
  )
  const byObject = new Map<string, Sample[]>()
  for (const { object_id: id, at, value } of found) {
    const sample = { at: at.getTime(), value }
    const known = byObject.get(id)
    if (known === undefined) byObject.set(id, [sample])
    else known.push(sample)
  }
  return byObject
}

/** All samples of one series between two instants, the first counted in. */
export async function samplesBetween(
  scope: Scope,
  metric: MetricName,
  objectId: string,
  from: Date,
  until: Date,
): Promise<Samples> {
  const bind = [metric, objectId, from.toISOString(), until.toISOString()]
  const packs = await rows<{ readonly pack: Buffer }>(
    scope,
    `select pack from metric_series as series join metric_packs as packs on packs.series_id = series.id
     where metric = $1 and object_id = $2 and packs.last_at >= $3 and starts_at < $4 order by starts_at`,
    bind,
  )
  const come = await rows<{ readonly at: Date; readonly value: number }>(
    scope,
    `select at, value from metric_series as series join ${incoming} as come on come.series_id = series.id
     where metric = $1 and object_id = $2 and at >= $3 and at < $4`,
    bind,
  )
  const known = packs.flatMap(({ pack }) => {
    const { times, values } = unpackSamples(pack)
    return Array.from(times, (at, index) => ({ at, value: values[index] ?? Number.NaN }))
  })
  const inside = known.filter(({ at }) => at >= from.getTime() && at < until.getTime())
  return mergeSamples({ times: [], values: [] }, [
    ...inside,
    ...come.map(({ at, value }) => ({ at: at.getTime(), value })),
  ])
}
