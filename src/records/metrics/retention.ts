import { rows, run, type Scope } from '../database'

/** What is measured is kept for so long (days): a year and a month, so that a year can be compared with the one before. */
export const keptDays = 400

/** Drops months that lie wholly before what is kept, and packs of what is no longer there. @returns the months that went */
export async function dropOldMetrics(scope: Scope, now: Date): Promise<readonly string[]> {
  const parts = await rows<{ readonly name: string }>(
    scope,
    `select inhrelid::regclass::text as name from pg_inherits where inhparent = 'metric_packs'::regclass`,
  )
  const oldest = now.getTime() - keptDays * 86_400_000
  const past = parts.flatMap(({ name }) => {
    const [, year, month] = /^metric_packs_(\d{4})_(\d{1,2})$/.exec(name) ?? []
    return year !== undefined && Date.UTC(Number(year), Number(month), 1) <= oldest ? [name] : []
  })
  for (const name of past) await run(scope, `drop table ${name}`)
  await run(scope, 'delete from metric_packs where series_id not in (select id from metric_series)')
  await run(scope, 'delete from snapshot_moments where due_at < $1', [new Date(oldest).toISOString()])
  return past
}

/** What is kept and what it takes, for whoever looks after the database. */
export async function metricSizes(scope: Scope): Promise<{ readonly samples: number; readonly bytes: number }> {
  const [found] = await rows<{ readonly samples: string; readonly bytes: string }>(
    scope,
    `select coalesce((select sum(samples) from metric_packs), 0) as samples,
       coalesce(sum(pg_total_relation_size(inhrelid)), 0) as bytes
     from pg_inherits where inhparent = 'metric_packs'::regclass`,
  )
  return { samples: Number(found?.samples ?? 0), bytes: Number(found?.bytes ?? 0) }
}
