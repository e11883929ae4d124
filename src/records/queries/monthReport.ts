import { DateTime } from 'luxon'
import { byId, provisionableBytes } from '@/core/estate'
import { ruleInWords } from '@/core/schedule'
import type { ClassMonth, MonthReport, PoolMonth, PromiseMonth, SnapshotMonth } from '@/core/views'
import { row, rows, type Scope } from '../database'
import { estateNow } from '../inventory'
import { dailyLast, forecastsOf } from '../metrics'
import { pools, systems } from './estatePage'

/** The months of which something is known, the latest first. */
export async function reportMonths(scope: Scope): Promise<string[]> {
  const found = await row<{ readonly first: Date | null }>(scope, 'select min(starts_at) as first from metric_packs')
  const now = DateTime.fromJSDate(await estateNow(scope), { zone: 'utc' }).startOf('month')
  const first = found?.first == null ? now : DateTime.fromJSDate(found.first, { zone: 'utc' }).startOf('month')
  const months: string[] = []
  for (let month = now; month >= first && months.length < 120; month = month.minus({ months: 1 }))
    months.push(month.toFormat('yyyy-MM'))
  return months
}

/** Capacity, promises and work of a month (UTC), `2026-10`. */
export async function monthReport(scope: Scope, month: string): Promise<MonthReport> {
  const begin = DateTime.fromFormat(month, 'yyyy-MM', { zone: 'utc' })
  const span = { from: begin.toJSDate(), until: begin.plus({ months: 1 }).toJSDate() }
  const now = await estateNow(scope)
  return {
    month,
    isOver: span.until <= now,
    pools: await poolMonths(scope, span, now),
    classes: await classMonths(scope, span),
    snapshots: await snapshotMonths(scope, span),
    promises: await promiseMonths(scope, span),
    ...(await workOf(scope, span)),
  }
}

interface Span {
  readonly from: Date
  readonly until: Date
}

async function poolMonths(scope: Scope, { from, until }: Span, now: Date): Promise<PoolMonth[]> {
  const all = await pools(scope)
  const allSystems = await systems(scope)
  const ids = all.map(({ id }) => id)
  const levels = await dailyLast(scope, 'written', ids, from)
  const outlooks = await forecastsOf(scope, ids)
  const passed = Math.max(0, (Math.min(until.getTime(), now.getTime()) - from.getTime()) / 86_400_000)
  return all.map(pool => {
    const own = (levels.get(pool.id) ?? []).filter(({ at }) => at < until.getTime()).map(({ value }) => value)
    const outlook = outlooks.get(pool.id)
    return {
      id: pool.id,
      name: pool.name,
      systemName: byId(allSystems, pool.systemId)?.name ?? '',
      capacityBytes: Number(provisionableBytes(pool)),
      firstBytes: own[0] ?? null,
      lastBytes: own.at(-1) ?? null,
      mostBytes: own.length === 0 ? null : Math.max(...own),
      daysToLimit: passed === 0 || outlook === undefined || 'why' in outlook ? null : outlook.reachesLimit.p50,
    }
  })
}

/** By what hours' packs say of themselves: nothing is opened for it. */
const classMonths = (scope: Scope, { from, until }: Span): Promise<ClassMonth[]> =>
  rows<ClassMonth>(
    scope,
    `select service_classes.id, service_classes.name, count(distinct volumes.id)::int as volumes,
       (latency_milliseconds / 1000.0)::float8 as "promisedSeconds", count(packs.samples)::int as hours,
       (count(*) filter (where packs.total / packs.samples * 1000 <= latency_milliseconds))::int as "hoursWithin"
     from service_classes join volumes on class_id = service_classes.id
       left join metric_series as series on series.object_id = volumes.id and series.metric = 'latency'
       left join metric_packs as packs on packs.series_id = series.id and packs.starts_at >= $1 and packs.starts_at < $2
     where latency_milliseconds is not null
     group by service_classes.id order by service_classes.name`,
    [from.toISOString(), until.toISOString()],
  )

/** By what was noted of each moment once it was over. */
async function snapshotMonths(scope: Scope, { from, until }: Span): Promise<SnapshotMonth[]> {
  const found = await rows<SnapshotMonth>(
    scope,
    `select service_classes.id, name, coalesce(snapshot_rule, '') as rule, sum(volumes)::int as due, sum(taken)::int as taken
     from snapshot_moments join service_classes on service_classes.id = class_id
     where due_at >= $1 and due_at < $2 group by service_classes.id order by name`,
    [from.toISOString(), until.toISOString()],
  )
  return found.map(each => ({ ...each, rule: each.rule === '' ? 'no longer' : ruleInWords(each.rule) }))
}

/** By what was seen in each hour. */
const promiseMonths = (scope: Scope, { from, until }: Span): Promise<PromiseMonth[]> =>
  rows<PromiseMonth>(
    scope,
    `select service_classes.id, name, (array_agg(promised order by day desc))[1] as promised, sum(hours)::float8 as hours,
       sum(kept)::float8 as "hoursKept"
     from promise_days join service_classes on service_classes.id = class_id
     where day >= ($1::timestamptz at time zone 'utc')::date and day < ($2::timestamptz at time zone 'utc')::date
     group by service_classes.id, promise order by name, promise`,
    [from.toISOString(), until.toISOString()],
  )

/** What was carried out, by the estate's clock, and what was found, by the wall's. */
async function workOf(scope: Scope, { from, until }: Span): Promise<Pick<MonthReport, 'changes' | 'findings'>> {
  const bind = [from.toISOString(), until.toISOString()]
  const changes = await row<MonthReport['changes']>(
    scope,
    `select (count(*) filter (where state = 'proven'))::int as proven, (count(*) filter (where state <> 'proven'))::int as others
     from changes where ended_estate_at >= $1 and ended_estate_at < $2`,
    bind,
  )
  const findings = await row<MonthReport['findings']>(
    scope,
    `select (count(*) filter (where since >= $1 and since < $2))::int as begun,
       (count(*) filter (where cleared_at >= $1 and cleared_at < $2))::int as cleared,
       (count(*) filter (where since < $2 and (cleared_at is null or cleared_at >= $2)))::int as standing
     from findings`,
    bind,
  )
  return {
    changes: changes ?? { proven: 0, others: 0 },
    findings: findings ?? { begun: 0, cleared: 0, standing: 0 },
  }
}
