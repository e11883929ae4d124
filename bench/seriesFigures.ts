import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import pg from 'pg'
import { from } from 'pg-copy-streams'
import type { Sequelize } from 'sequelize'
import { run } from '@/records/database'
import {
  keepForecasts,
  keepPast,
  metricSizes,
  packIncoming,
  samplesBetween,
  sampleLevels,
  seriesAt,
  writeSamples,
  type SeriesSample,
} from '@/records/metrics'
import { capacityShares, leftBehind, poolGrowth, poolsByDate, slowest } from '@/records/queries'
import { estateOf, large, whole } from './largeEstate'
import { timed, under, type Figure } from './measure'

const ingested = 1_000_000
const keptSeries = 100
const minute = 60_000
const day = 86_400_000
const now = Date.UTC(2026, 10, 23, 12)
/** A course of a pool as the demo estate's are: bytes that grow by steps of an extent, unevenly. */
const bytesOf = (index: number) => (3.4e8 + Math.floor(index * 680 + Math.sin(index / 31) * 9000)) * 2 ** 20

/** What is measured, on its way into the records and out of them. */
export async function seriesFigures(url: string): Promise<Figure[]> {
  const own = `${url}_series`
  const database = await estateOf(own, { ...whole, drives: 24, otherDrives: 0, changes: 100 })
  const scope = { database }
  const levels = await timed(
    3,
    (() => {
      let turn = 0
      return () => sampleLevels(database, large, new Date(now + ++turn * 5 * minute))
    })(),
  )
  await packIncoming(database)
  const places = ['/p', ...Array.from({ length: keptSeries - 1 }, (_, index) => `/v/${index + 1}`)]
  const seriesOf = await seriesAt(scope, large, places, ['written'])
  const figures = await ingestFigures(
    database,
    own,
    places.flatMap(place => seriesOf(place, 'written') ?? []),
  )
  figures.push(
    under(
      `${whole.volumes.toLocaleString('en')} volumes looked at for what has become otherwise, where nothing has`,
      levels,
      1000,
    ),
  )
  figures.push(...(await readingFigures(database)))
  await database.close()
  return figures
}

/** Samples of a thousand series, a minute apart, in the order in which a collector has them. */
const samplesOf = (firstSeries: number): SeriesSample[] =>
  Array.from({ length: ingested }, (_, index) => ({
    seriesId: firstSeries + (index % 1000),
    at: now - 30 * day + Math.floor(index / 1000) * minute,
    value: (index * 7919) % 100_000,
  }))

async function ingestFigures(database: Sequelize, url: string, seriesIds: readonly number[]): Promise<Figure[]> {
  const samples = samplesOf(10_000_000)
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  await client.query('create table plain (series_id int, at timestamptz, value float8)')
  const text = samples.map(each => `${each.seriesId}\t${new Date(each.at).toISOString()}\t${each.value}\n`)
  const plain = await timed(3, async () => {
    await client.query('truncate plain')
    await pipeline(Readable.from(chunks(text)), client.query(from('copy plain from stdin')))
  })
  const ours = await timed(3, async () => {
    await run({ database }, 'truncate metric_incoming_0, metric_incoming_1')
    await writeSamples(database, samples)
  })
  await client.query('drop table plain')
  await client.end()
  await run({ database }, 'truncate metric_incoming_0, metric_incoming_1')
  // A month of them, at a sample every five minutes.
  const each = 30 * 288
  const count = each * seriesIds.length
  await writeSamples(
    database,
    seriesIds.flatMap(seriesId =>
      Array.from({ length: each }, (_, index) => ({
        seriesId,
        at: now - 30 * day + index * 5 * minute,
        value: bytesOf(index) + seriesId * 2 ** 30,
      })),
    ),
  )
  const before = await metricSizes({ database })
  const packing = await timed(1, () => packIncoming(database))
  const after = await metricSizes({ database })
  const ratio = plain.median / ours.median
  return [
    {
      what: `${ingested.toLocaleString('en')} samples written, beside a plain copy of the same rows`,
      measured: `${rate(ours.median)} a second beside ${rate(plain.median)}`,
      wanted: 'at least half',
      holds: ratio >= 0.5,
    },
    under(`${count.toLocaleString('en')} samples of ${keptSeries} series packed`, packing, 20_000),
    {
      what: 'Samples at rest, indices included',
      measured: `${((after.bytes - before.bytes) / (after.samples - before.samples)).toFixed(2)} bytes a sample`,
      wanted: 'at most 2',
      holds: (after.bytes - before.bytes) / (after.samples - before.samples) <= 2,
    },
  ]
}

const rate = (milliseconds: number) => Math.round((ingested / milliseconds) * 1000).toLocaleString('en')

function* chunks(lines: readonly string[]): Generator<string> {
  for (let first = 0; first < lines.length; first += 2000) yield lines.slice(first, first + 2000).join('')
}

async function readingFigures(database: Sequelize): Promise<Figure[]> {
  const scope = { database }
  const at = new Date(now)
  await keepPast(scope, at)
  await keepForecasts(scope, at)
  const pools = await poolsByDate(scope)
  const [first] = pools
  if (first === undefined) throw new Error('The large estate has a pool.')
  const month = await timed(9, () =>
    samplesBetween(scope, 'written', first.pool.id, new Date(now - 30 * day), new Date(now)),
  )
  const page = await timed(5, async () => {
    await poolsByDate(scope)
    await poolGrowth(scope, first, at)
  })
  // As it is after a day: of every volume how it was, by an hour's work in between.
  await database.query(`
    insert into metric_series (system_id, kind, object_id, metric, recent_at, recent_p95, recent_mean)
    select system_id, 'volumes', id, metric, now(), case when metric = 'latency' then 0.0005 + (hashtext(id::text) & 65535) / 1e6 end,
      (hashtext(name) & 1023)
    from volumes cross join unnest(array['latency', 'requests', 'throughput', 'writes']) as metric;
    analyze metric_series`)
  const slow = await timed(5, () => slowest(scope, 20))
  const shares = await timed(5, () => capacityShares(scope, 'application'))
  const left = await timed(5, () => leftBehind(scope, 30, at))
  return [
    under('30 days of one series, unpacked at the server', month, 50),
    under(
      `A pool of ${whole.volumes.toLocaleString('en')} volumes with its forecast, who grows and the ways out`,
      page,
      300,
    ),
    under('Who has what is written, by application', shares, 300),
    under(`What is left behind among ${whole.volumes.toLocaleString('en')} volumes`, left, 1000),
    under(`The 20 slowest of ${whole.volumes.toLocaleString('en')} volumes by the P95 of a day`, slow, 500),
  ]
}
