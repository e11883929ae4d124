import type { Sequelize } from 'sequelize'
import {
  mergeSamples,
  metrics,
  packSamples,
  packStart,
  Sketch,
  unpackSamples,
  type Metric,
  type MetricName,
  type Samples,
} from '@/core/metrics'
import { inTransaction, row, rows, run, type Scope } from '../database'
import { incomingTables } from './incoming'

/** The number of a lock that lets one process at a time pack. */
const packingLock = 7_261_555
const rowsAtOnce = 20_000

interface IncomingRow {
  readonly series_id: number
  readonly metric: MetricName
  readonly at: Date
  readonly value: number
}

interface Group {
  readonly seriesId: number
  readonly metric: MetricName
  readonly startsAt: number
  readonly come: { at: number; value: number }[]
}

export interface Packed {
  readonly samples: number
  readonly packs: number
}

/**
 * Moves what has come into packs, merged with what stands there. It happens wholly or not at all: a process that dies leaves what has
 * come where it was, and the next one packs that first.
 */
export async function packIncoming(database: Sequelize): Promise<Packed> {
  await turn(database)
  return inTransaction(database, async scope => {
    const held = await row<{ readonly held: boolean }>(
      scope,
      `select pg_try_advisory_xact_lock(${packingLock}) as held`,
    )
    if (held?.held !== true) return { samples: 0, packs: 0 }
    const closed = await closedTable(scope)
    await run(
      scope,
      `declare come no scroll cursor for select series_id, metric, at, value from ${closed}
       join metric_series on id = series_id order by series_id, at, ${closed}.ctid`,
    )
    const packed = await packCursor(scope)
    await run(scope, 'close come')
    await run(scope, `truncate ${closed}`)
    return packed
  })
}

/** The table into which nothing is written, for as long as this transaction lasts: tables cannot be turned while it holds the state. */
async function closedTable(scope: Scope): Promise<string> {
  const state = await row<{ readonly generation: 0 | 1 }>(scope, 'select generation from metric_state for share')
  return incomingTables[state?.generation === 0 ? 1 : 0]
}

async function packCursor(scope: Scope): Promise<Packed> {
  let open: Group | undefined
  let samples = 0
  let packs = 0
  for (;;) {
    const found = await rows<IncomingRow>(scope, `fetch ${rowsAtOnce} from come`)
    const groups = grouped(found, open)
    // The last may go on in the rows that follow.
    open = found.length === 0 ? undefined : groups.pop()
    await keep(scope, groups)
    samples += found.length
    packs += groups.length
    if (found.length === 0) return { samples, packs }
  }
}

/** Closes the table into which samples go, once the other one is empty: who writes is waited for, so that none comes too late. */
const turn = (database: Sequelize): Promise<void> =>
  inTransaction(database, async scope => {
    const state = await row<{ readonly generation: 0 | 1 }>(scope, 'select generation from metric_state for update')
    const open = state?.generation === 1 ? 1 : 0
    const closed = open === 0 ? 1 : 0
    const isFilled = async (table: string) =>
      (await row<{ readonly some: boolean }>(scope, `select exists (select from ${table}) as some`))?.some === true
    if ((await isFilled(incomingTables[closed])) || !(await isFilled(incomingTables[open]))) return
    await run(scope, 'update metric_state set generation = $1', [closed])
  })

function grouped(found: readonly IncomingRow[], open: Group | undefined): Group[] {
  const groups: Group[] = open === undefined ? [] : [open]
  for (const { series_id: seriesId, metric, at, value } of found) {
    const startsAt = packStart(metric, at.getTime())
    const last = groups.at(-1)
    const sample = { at: at.getTime(), value }
    if (last?.seriesId === seriesId && last.startsAt === startsAt) last.come.push(sample)
    else groups.push({ seriesId, metric, startsAt, come: [sample] })
  }
  return groups
}

const dates = (all: readonly number[]) => all.map(each => new Date(each).toISOString())

async function keep(scope: Scope, groups: readonly Group[]): Promise<void> {
  if (groups.length === 0) return
  const places = [groups.map(each => each.seriesId), dates(groups.map(each => each.startsAt))] as const
  await partitions(scope, groups)
  const known = await rows<{ readonly series_id: number; readonly starts_at: Date; readonly pack: Buffer }>(
    scope,
    `select series_id, starts_at, pack from metric_packs
     join unnest($1::int[], $2::timestamptz[]) as wanted (series_id, starts_at) using (series_id, starts_at)`,
    places,
  )
  const before = new Map(known.map(each => [`${each.series_id} ${each.starts_at.getTime()}`, each.pack]))
  const merged = groups.map(({ seriesId, startsAt, come }) => {
    const pack = before.get(`${seriesId} ${startsAt}`)
    return mergeSamples(pack === undefined ? { times: [], values: [] } : unpackSamples(pack), come)
  })
  const figures = merged.map(figuresOf)
  await run(
    scope,
    `insert into metric_packs (series_id, starts_at, last_at, samples, least, most, total, last_value, pack, sketch)
     select * from unnest($1::int[], $2::timestamptz[], $3::timestamptz[], $4::int[], $5::float8[], $6::float8[], $7::float8[], $8::float8[], $9::bytea[], $10::bytea[])
     on conflict (series_id, starts_at) do update set last_at = excluded.last_at, samples = excluded.samples,
       least = excluded.least, most = excluded.most, total = excluded.total, last_value = excluded.last_value, pack = excluded.pack, sketch = excluded.sketch`,
    [
      ...places,
      dates(merged.map(({ times }) => times[times.length - 1] ?? 0)),
      merged.map(({ times }) => times.length),
      ...(['least', 'most', 'total', 'last'] as const).map(figure => figures.map(each => each[figure])),
      merged.map(each => asBytes(packSamples(each))),
      merged.map((each, index) => sketchOf(groups[index]?.metric, each)),
    ],
  )
}

const asBytes = (bytes: Uint8Array) => `\\x${Buffer.from(bytes).toString('hex')}`

/** How often values of each size came, of what is kept as a distribution. */
function sketchOf(metric: MetricName | undefined, { values }: Samples): string | null {
  if (metric === undefined || (metrics[metric] as Metric).isDistribution !== true) return null
  const sketch = new Sketch()
  for (let index = 0; index < values.length; index += 1) sketch.add(values[index] ?? 0)
  return asBytes(sketch.packed())
}

/** What can be said of a pack without opening it. */
function figuresOf({ values }: Samples) {
  const figures = { least: Number.POSITIVE_INFINITY, most: Number.NEGATIVE_INFINITY, total: 0, last: 0 }
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index] ?? 0
    figures.least = Math.min(figures.least, value)
    figures.most = Math.max(figures.most, value)
    figures.total += value
    figures.last = value
  }
  return figures
}

/** Packs of one month stand in a part of their own. */
async function partitions(scope: Scope, groups: readonly Group[]): Promise<void> {
  const months = new Set(groups.map(each => new Date(each.startsAt).toISOString().slice(0, 7)))
  for (const month of months) {
    const [year = 0, number = 1] = month.split('-').map(Number)
    const next = new Date(Date.UTC(year, number, 1)).toISOString()
    await run(
      scope,
      `create table if not exists metric_packs_${year}_${number} partition of metric_packs for values from ('${month}-01T00:00:00Z') to ('${next}')`,
    )
  }
}
