import { randomBytes } from 'node:crypto'
import { readBoard } from '@/core/board'
import { connected } from '@/core/threads'
import { run } from '../database'
import { keepFindings, nextReading, storeInventory } from '../inventory'
import { packIncoming, seriesAt, writeSamples } from '../metrics'
import { objects } from '../objects'
import { setSetting } from '..'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import { boardPage, monthReport, reportMonths, threadPage } from '.'

const hour = 3_600_000
const day = 24 * hour
/** A Monday. */
const now = Date.UTC(2026, 4, 4, 12)

/** A system with a pool and three volumes of which ten weeks are measured: nights of 1 ms, days of 4, and one bad afternoon. */
async function measured() {
  const { database, close } = await freshDatabase()
  const scope = { database }
  await setSetting(scope, 'addresses', '')
  const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
  await storeInventory(database, systemId, sampleInventory(), await nextReading(scope), undefined)
  const seriesOf = await seriesAt(scope, systemId, ['/p', '/v/0', '/v/1'], ['latency', 'requests', 'written'])
  const [pool] = await objects(scope, 'pools')
  const volumes = await objects(scope, 'volumes')
  if (pool === undefined) throw new Error('There is a pool.')
  const isDay = (at: number) => at % day >= 8 * hour && at % day < 18 * hour
  const bad = (at: number) => at >= now - 6 * hour && at < now - 3 * hour
  for (let from = now - 70 * day; from < now; from += 20 * 60_000 * 500) {
    const times = Array.from({ length: 500 }, (_, index) => from + index * 20 * 60_000).filter(at => at < now)
    const of = (locator: string, metric: 'latency' | 'requests', value: (at: number) => number) =>
      times.map(at => ({ seriesId: seriesOf(locator, metric) ?? 0, at, value: value(at) }))
    await writeSamples(database, [
      ...of('/v/0', 'latency', at => (bad(at) ? 0.02 : isDay(at) ? 0.004 : 0.001)),
      ...of('/v/0', 'requests', at => (isDay(at) ? 400 : 50)),
      ...of('/v/1', 'requests', at => (bad(at) ? 900 : 20)),
    ])
  }
  const levels = Array.from({ length: 70 }, (_, index) => ({
    seriesId: seriesOf('/p', 'written') ?? 0,
    at: now - (69 - index) * day,
    value: 1e12 + index * 1e10,
  }))
  await writeSamples(database, levels)
  await packIncoming(database)
  const at = (locator: string) => volumes.find(each => each.locator === locator)?.id ?? ''
  return { at, close, database, pool, scope, systemId }
}

test('a board has each series on one axis, tells what left its usual band, and what moves with it', async () => {
  const { at, close, pool, scope, systemId } = await measured()
  try {
    await keepFindings(scope, systemId, 'reading', [])
    const lanes = `latency.${at('/v/0')}*usual*shift~-7_written.${pool.id}_requests.${at('/v/1')}*over~requests.${at('/v/0')}`
    const page = await boardPage(scope, readBoard({ lanes, hours: '48', lane: '0' }), new Date(now))
    expect([page.from, page.until, page.times.length]).toEqual([now - 48 * hour, now, 480])
    const [latency, written, requests] = page.lanes
    expect(latency?.of).toMatchObject({ kind: 'volumes', metric: 'latency' })
    expect(latency?.left[0]).toMatchObject({ side: 'above' })
    const step = page.times[latency?.left[0]?.from ?? 0] ?? 0
    expect(Math.abs(step - (now - 6 * hour))).toBeLessThan(hour)
    // A week before nothing was bad.
    expect(Math.max(...(latency?.shifted ?? []).map(each => each ?? 0))).toBeCloseTo(0.004)
    // A level stands until the next: there are no holes between its days.
    expect(written?.values.every(each => each !== null)).toBe(true)
    expect(requests?.over?.of?.name).toBe(latency?.of?.name)
    expect(page.moving[0]).toMatchObject({ of: { objectId: at('/v/1'), metric: 'requests' }, isTold: true })
    expect(Math.abs(page.moving[0]?.lagMinutes ?? 99)).toBeLessThan(20)
  } finally {
    await close()
  }
}, 60_000)

test('an object that is gone leaves an empty lane, and an empty board is a board', async () => {
  const { close, scope } = await measured()
  try {
    const gone = await boardPage(
      scope,
      readBoard({ lanes: 'latency.01890000-0000-7000-8000-000000000000*usual', lane: '0' }),
      new Date(now),
    )
    expect(gone.lanes[0]).toMatchObject({ of: undefined, left: [] })
    expect(gone.lanes[0]?.values.every(each => each === null)).toBe(true)
    expect(gone.moving).toEqual([])
    expect((await boardPage(scope, readBoard({}), new Date(now))).lanes).toEqual([])
  } finally {
    await close()
  }
}, 60_000)

test('threads lead from applications to drives, with how each part stands', async () => {
  const { at, close, pool, scope } = await measured()
  try {
    await run(scope, `update volumes set application = 'register' where id = $1`, [at('/v/0')])
    await run(scope, `update metric_series set recent_p95 = 0.009 where object_id = $1 and metric = 'latency'`, [
      at('/v/0'),
    ])
    const page = await threadPage(scope, `volume/${at('/v/0')}`)
    expect([page.threads.length, page.total]).toEqual([3, 3])
    expect(page.threads[0]?.volume[0]?.key).toBe(`volume/${at('/v/0')}`)
    expect(page.states[`volume/${at('/v/0')}`]).toMatchObject({ words: '9.0 ms', gravity: 'fine' })
    expect(page.states['application/register']).toMatchObject({ words: '9.0 ms' })
    const own = connected(page.threads, `pool/${pool.id}`)
    expect(own.carries.map(({ stop }) => stop)).toEqual(['volume', 'volume', 'volume', 'application'])
    expect(own.needs.map(({ stop }) => stop)).toEqual(['drives'])
    // Whatever the address says, a page comes of it.
    expect((await threadPage(scope, `volume/' or 1=1 --`)).threads).toHaveLength(3)
  } finally {
    await close()
  }
}, 60_000)

test('a month is told by what was measured in it, and nothing of another month', async () => {
  const { close, pool, scope } = await measured()
  try {
    const april = await monthReport(scope, '2026-04')
    const [own] = april.pools
    expect(own).toMatchObject({ id: pool.id, name: 'pool' })
    // Levels of a day: 30 in April, ten gigabytes more each day.
    expect((own?.lastBytes ?? 0) - (own?.firstBytes ?? 0)).toBeCloseTo(29e10, -8)
    expect(april.changes).toEqual({ proven: 0, others: 0 })
    const early = await monthReport(scope, '2025-01')
    expect(early.pools[0]).toMatchObject({ firstBytes: null, lastBytes: null, mostBytes: null })
    expect(await reportMonths(scope)).toContain('2026-03')
  } finally {
    await close()
  }
}, 60_000)
