import { extremesOnGrid, leavesBand, movesWith, onGrid, usualBand, type Board, type LaneAsked } from '@/core/board'
import { estateTime } from '@/core/clock'
import type { Finding } from '@/core/findings'
import { metrics, type Metric, type MetricName, type Samples } from '@/core/metrics'
import type { BoardEvent, BoardPage, Course, Lane, MovesWith, SeriesNamed } from '@/core/views'
import { rows, type Scope } from '../database'
import { estateClock } from '../inventory'
import { eachMeasured, samplesBetween } from '../metrics'

const hour = 3_600_000
const day = 24 * hour
/** Steps of the drawing: about one a pixel and a half. */
const steps = 480
const usualWeeks = 8
/** Other series that are compared with the chosen one: those of its pool, the busiest first. */
const mostCompared = 24
const mostLag = 24
const mostEvents = 40
const mostMoving = 6

/** A board with everything that is drawn on it. */
export async function boardPage(scope: Scope, board: Board, now: Date): Promise<BoardPage> {
  const until = board.until ?? now.getTime()
  const from = until - board.hours * hour
  const width = (until - from) / steps
  const times = Float64Array.from({ length: steps }, (_, step) => from + (step + 0.5) * width)
  const names = await named(
    scope,
    board.lanes.flatMap(({ objectId, over }) => [objectId, ...(over === null ? [] : [over.objectId])]),
  )
  const lanes: Lane[] = []
  for (const asked of board.lanes) lanes.push(await laneOf(scope, asked, names, { from, until, times }))
  const chosen = lanes[board.chosen ?? -1]
  return {
    from,
    until,
    times: Array.from(times),
    lanes,
    events: await eventsOf(scope, [...names.values()], from, until),
    moving: chosen?.of === undefined ? [] : await movingWith(scope, chosen, lanes, { from, until }),
  }
}

interface Span {
  readonly from: number
  readonly until: number
}

/** What is measured, by its ids. */
async function named(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Omit<SeriesNamed, 'metric'>>> {
  if (ids.length === 0) return new Map()
  const found = await rows<Omit<SeriesNamed, 'metric'>>(
    scope,
    // Drives are named by their bays, which every system has.
    eachMeasured(kind =>
      kind === 'drives'
        ? `id as "objectId", (select name from systems where id = object.system_id) || ', ' || name as name`
        : 'id as "objectId", name',
    ),
    [ids],
  )
  return new Map(found.map(each => [each.objectId, each]))
}

const isLevel = (metric: MetricName) => Object.keys((metrics[metric] as Metric).of).length > 0
/** A rate of the past stands for an hour, which is what systems keep; more is a gap. A level that a field has stands until it changes. */
const holds = (metric: MetricName) => (isLevel(metric) ? Number.POSITIVE_INFINITY : 1.25 * hour)

const read = (scope: Scope, metric: MetricName, objectId: string, { from, until }: Span): Promise<Samples> =>
  // What was noted before the span stands at its beginning.
  samplesBetween(scope, metric, objectId, new Date(from - (isLevel(metric) ? 2 * day : 2 * hour)), new Date(until))

const gridOf = async (scope: Scope, metric: MetricName, objectId: string, span: Span, count = steps) =>
  onGrid(await read(scope, metric, objectId, span), { ...span, steps: count }, holds(metric))

const listed = (values: Float64Array) => Array.from(values, each => (Number.isNaN(each) ? null : each))

/** A series within a span, with the least and the most of each step. */
async function courseOf(
  scope: Scope,
  { metric, objectId }: Pick<SeriesNamed, 'metric' | 'objectId'>,
  { from, until }: Span,
): Promise<Course> {
  const [samples, grid] = [await read(scope, metric, objectId, { from, until }), { from, until, steps }]
  const extremes = extremesOnGrid(samples, grid)
  return {
    values: listed(onGrid(samples, grid, holds(metric))),
    extremes: extremes === undefined ? null : { low: listed(extremes.low), high: listed(extremes.high) },
  }
}

async function laneOf(
  scope: Scope,
  asked: LaneAsked,
  names: ReadonlyMap<string, Omit<SeriesNamed, 'metric'>>,
  { from, until, times }: Span & { readonly times: Float64Array },
): Promise<Lane> {
  const { over, shiftDays, isUsualShown } = asked
  const span = { from, until }
  const before = { from: from + shiftDays * day, until: until + shiftDays * day }
  const series = (of: { readonly metric: MetricName; readonly objectId: string }) => {
    const found = names.get(of.objectId)
    return found === undefined ? undefined : { ...found, metric: of.metric }
  }
  const course = await courseOf(scope, asked, span)
  const band = isUsualShown ? await bandOf(scope, asked, from, times) : undefined
  return {
    asked,
    of: series(asked),
    ...course,
    over: over === null ? null : { of: series(over), ...(await courseOf(scope, over, span)) },
    shifted: shiftDays === 0 ? null : await courseOf(scope, asked, before),
    usual: band === undefined ? null : { low: listed(band.low), high: listed(band.high) },
    left:
      band === undefined
        ? []
        : leavesBand(
            Float64Array.from(course.values, each => each ?? Number.NaN),
            band,
          ),
  }
}

/** What is usual of a series at each hour of the week, from the weeks before the span. */
async function bandOf(scope: Scope, { metric, objectId }: LaneAsked, from: number, times: Float64Array) {
  const begin = Math.floor((from - usualWeeks * 7 * day) / hour) * hour
  const end = Math.floor(from / hour) * hour
  const past = await gridOf(scope, metric, objectId, { from: begin, until: end }, (end - begin) / hour)
  return usualBand(past, begin, times)
}

/** Changes that touched the board's objects, and findings about their systems, within the span. */
async function eventsOf(
  scope: Scope,
  objects: readonly Omit<SeriesNamed, 'metric'>[],
  from: number,
  until: number,
): Promise<BoardEvent[]> {
  const ids = objects.map(({ objectId }) => objectId)
  if (ids.length === 0) return []
  return [...(await changesOf(scope, ids, from, until)), ...(await findingsOf(scope, ids, from, until))]
    .sort((a, b) => a.at - b.at)
    .slice(-mostEvents)
}

/** By the indices changes_reads and changes_made, one look for each object. */
async function changesOf(scope: Scope, ids: readonly string[], from: number, until: number): Promise<BoardEvent[]> {
  const span = [new Date(from).toISOString(), new Date(until).toISOString()]
  const touched = ids.flatMap((_, index) => [
    `plan -> 'reads' @> $${2 * index + 3}::jsonb`,
    `facts @> $${2 * index + 4}::jsonb`,
  ])
  const bind = ids.flatMap(id => [JSON.stringify([{ id }]), JSON.stringify({ volumeId: id })])
  const found = await rows<{
    readonly id: string
    readonly title: string
    readonly state: string
    readonly at: Date
    readonly over: Date | null
  }>(
    scope,
    `select id, title, state, carried_out_estate_at as at, ended_estate_at as over from changes
     where carried_out_estate_at >= $1 and carried_out_estate_at < $2 and (${touched.join(' or ')})
     order by number desc limit ${mostEvents}`,
    [...span, ...bind],
  )
  return found.map(({ id, title, state, at, over }) => ({
    at: at.getTime(),
    until: over?.getTime() ?? null,
    kind: 'change' as const,
    gravity: state === 'proven' ? ('fine' as const) : state === 'running' ? ('note' as const) : ('now' as const),
    words: title,
    href: `/changes/${id}`,
  }))
}

/** Findings bear the wall's time: it is told by the estate's clock, as everything else on a board. */
async function findingsOf(scope: Scope, ids: readonly string[], from: number, until: number): Promise<BoardEvent[]> {
  const clock = await estateClock(scope)
  const found = await rows<{ readonly body: Finding; readonly since: Date; readonly cleared_at: Date | null }>(
    scope,
    `select body, since, cleared_at from findings where system_id in (
       select system_id from pools where id = any($1::uuid[]) union select system_id from volumes where id = any($1::uuid[])
       union select system_id from drives where id = any($1::uuid[]) union select system_id from shares where id = any($1::uuid[])
       union select id from systems where id = any($1::uuid[]))
     order by since desc limit ${mostEvents}`,
    [ids],
  )
  return found.flatMap(({ body, since, cleared_at }): BoardEvent[] => {
    const at = estateTime(clock, since).getTime()
    const over = cleared_at === null ? null : estateTime(clock, cleared_at).getTime()
    if (at >= until || (over ?? until) < from) return []
    const href = body.draft?.href ?? '/watch/health'
    return [{ at, until: over, kind: 'finding', gravity: body.gravity, words: body.title, href }]
  })
}

/** What moves with the chosen lane: the other lanes, and of its pool the pool itself and its busiest volumes. */
async function movingWith(scope: Scope, chosen: Lane, lanes: readonly Lane[], span: Span): Promise<MovesWith[]> {
  const { of } = chosen
  if (of === undefined) return []
  const own = Float64Array.from(chosen.values, each => each ?? Number.NaN)
  const beside = lanes.flatMap(lane => (lane === chosen || lane.of === undefined ? [] : [lane.of]))
  const keyOf = ({ metric, objectId }: SeriesNamed) => `${metric}.${objectId}`
  const known = new Set([of, ...beside].map(keyOf))
  const others = (await neighbours(scope, of)).filter(each => !known.has(keyOf(each)))
  const stepMinutes = (span.until - span.from) / steps / 60_000
  const found: MovesWith[] = []
  for (const series of [...beside, ...others]) {
    const values = await gridOf(scope, series.metric, series.objectId, span)
    const { strength, lag, isTold, byLag } = movesWith(own, values, mostLag)
    found.push({ of: series, strength, lagMinutes: lag * stepMinutes, isTold, byLag: Array.from(byLag) })
  }
  return found.sort((a, b) => Math.abs(b.strength) - Math.abs(a.strength)).slice(0, mostMoving)
}

/** The pool in which something stands, as a query by its id; of a system its fullest. */
const homeOf: Readonly<Record<SeriesNamed['kind'], string>> = {
  pools: '$1::uuid',
  volumes: '(select pool_id from volumes where id = $1)',
  drives: '(select pool_id from drives where id = $1)',
  shares: '(select pool_id from shares join volumes on volumes.id = volume_id where shares.id = $1)',
  systems: '(select id from pools where system_id = $1 and missing_since is null order by written_bytes desc limit 1)',
}

const neighbours = (scope: Scope, { objectId, kind }: SeriesNamed): Promise<SeriesNamed[]> =>
  rows<SeriesNamed>(
    scope,
    `with home as (select ${homeOf[kind]} as id),
       busiest as (
         select volumes.id, volumes.name from volumes join metric_series on object_id = volumes.id and metric = 'requests'
         where pool_id = (select id from home) order by recent_mean desc nulls last limit ${mostCompared / 2})
     select object_id as "objectId", metric, 'pools' as kind, pools.name from metric_series join pools on pools.id = object_id
       where object_id = (select id from home) and metric in ('latency', 'requests', 'throughput')
     union all
     select object_id, metric, 'volumes', busiest.name from metric_series join busiest on busiest.id = object_id
       where metric in ('requests', 'latency')
     limit ${mostCompared}`,
    [objectId],
  )
