import { isMeasuredOf, refusedWhy, type MeasuredKind, type RefusedLine, type SampleLine } from '@/core/metrics'
import type { Sequelize } from 'sequelize'
import { rows, run, type Scope } from '../database'
import { writeSamples, type SeriesSample } from './incoming'
import { keptDays } from './retention'
import { eachMeasured, systemIdOf } from './series'

interface Measured {
  readonly id: string
  readonly systemId: string
  readonly kind: MeasuredKind
}

/**
 * Keeps samples that somebody brings in, beside those that systems tell: of one instant the one that came last counts. What cannot be
 * kept is told with its line; all the rest is kept, or nothing where the database refuses.
 */
export async function bringIn(
  database: Sequelize,
  samples: readonly SampleLine[],
  now: Date,
): Promise<{ readonly kept: number; readonly refused: readonly RefusedLine[] }> {
  const scope = { database }
  const measured = await measuredOf(scope, [...new Set(samples.map(({ objectId }) => objectId))])
  const refused: RefusedLine[] = []
  const good = samples.filter(sample => {
    const object = measured.get(sample.objectId)
    const why =
      object === undefined
        ? 'No pool, volume, drive, share or system has that id.'
        : !isMeasuredOf(object.kind, sample.metric)
          ? `Of ${object.kind} no ${sample.metric} is kept.`
          : refusedWhy(sample, now.getTime(), keptDays)
    if (why !== undefined) refused.push({ line: sample.line, why: why.startsWith('is') ? `It ${why}.` : why })
    return why === undefined
  })
  const seriesOf = await seriesFor(scope, good, measured)
  const kept = good.flatMap(({ objectId, metric, at, value }): SeriesSample[] => {
    const seriesId = seriesOf.get(`${metric} ${objectId}`)
    return seriesId === undefined ? [] : [{ seriesId, at, value }]
  })
  await writeSamples(database, kept)
  return { kept: kept.length, refused }
}

async function measuredOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Measured>> {
  const found = await rows<Measured>(
    scope,
    eachMeasured(kind => `id, ${systemIdOf(kind)} as "systemId"`),
    [ids],
  )
  return new Map(found.map(each => [each.id, each]))
}

/** The series of what is brought in, by metric and object; those that are not there yet are made. */
async function seriesFor(
  scope: Scope,
  samples: readonly SampleLine[],
  measured: ReadonlyMap<string, Measured>,
): Promise<ReadonlyMap<string, number>> {
  const wanted = [...new Map(samples.map(each => [`${each.metric} ${each.objectId}`, each])).values()].map(each => ({
    object_id: each.objectId,
    metric: each.metric,
    kind: measured.get(each.objectId)?.kind,
    system_id: measured.get(each.objectId)?.systemId,
  }))
  const list = JSON.stringify(wanted)
  await run(
    scope,
    `insert into metric_series (system_id, kind, object_id, metric)
     select system_id, kind, object_id, metric
     from jsonb_to_recordset($1::jsonb) as wanted(system_id uuid, kind text, object_id uuid, metric text)
     where not exists (select from metric_series known where known.object_id = wanted.object_id and known.metric = wanted.metric)
     on conflict (object_id, metric) do nothing`,
    [list],
  )
  const found = await rows<{ readonly id: number; readonly objectId: string; readonly metric: string }>(
    scope,
    `select series.id, series.object_id as "objectId", series.metric
     from jsonb_to_recordset($1::jsonb) as wanted(object_id uuid, metric text)
     join metric_series series on series.object_id = wanted.object_id and series.metric = wanted.metric`,
    [list],
  )
  return new Map(found.map(each => [`${each.metric} ${each.objectId}`, each.id]))
}
