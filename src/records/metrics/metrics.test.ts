import { randomBytes } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import { sampleFileService, sampleShare } from '@/core/estate/testing/samples'
import { setSetting } from '..'
import { row, rows, run } from '../database'
import { nextReading, storeInventory } from '../inventory'
import { objects } from '../objects'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import {
  caughtUp,
  dailyLast,
  dropOldMetrics,
  forecastsOf,
  keepForecasts,
  metricSizes,
  metricSource,
  noteCaughtUp,
  noteFilled,
  noteFollowed,
  noteGap,
  packIncoming,
  samplesBetween,
  sampleLevels,
  seriesAt,
  writeSamples,
} from '.'

const day = 86_400_000
const monday = Date.UTC(2026, 4, 4)
const minute = 60_000

/** A system with a pool and three volumes, and the series of the pool. */
async function measured() {
  const { database, close } = await freshDatabase()
  const scope = { database }
  await setSetting(scope, 'addresses', '')
  const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
  await storeInventory(database, systemId, sampleInventory(), await nextReading(scope), undefined)
  const seriesOf = await seriesAt(scope, systemId, ['/p', '/v/0'], ['written'])
  const pool = (await objects(scope, 'pools'))[0]
  if (pool === undefined) throw new Error('There is a pool.')
  const seriesId = seriesOf('/p', 'written') ?? 0
  const all = () => samplesBetween(scope, 'written', pool.id, new Date(0), new Date(monday + 1000 * day))
  return { all, close, database, pool, scope, seriesId, seriesOf, systemId }
}

test('samples are there as soon as they are written, and the same after they have been packed, late ones and doubles too', async () => {
  const { all, close, database, pool, scope, seriesId } = await measured()
  try {
    const course = Array.from({ length: 3000 }, (_, at) => ({ seriesId, at: monday + at * minute, value: at * 4096 }))
    await writeSamples(database, [...course.slice(1000), ...course.slice(0, 500)])
    const before = await all()
    expect(before.times).toHaveLength(2500)
    expect(await packIncoming(database)).toEqual({ samples: 2500, packs: 3 })
    expect(await packIncoming(database)).toEqual({ samples: 0, packs: 0 })
    expect(await all()).toEqual(before)
    await writeSamples(database, [...course.slice(400, 1100), { seriesId, at: monday, value: 77 }])
    await packIncoming(database)
    const { times, values } = await all()
    expect(Array.from(times)).toEqual(course.map(({ at }) => at))
    expect(Array.from(values)).toEqual([77, ...course.slice(1).map(({ value }) => value)])
    const levels = await dailyLast(scope, 'written', [pool.id], new Date(monday))
    expect(levels.get(pool.id)?.map(({ value }) => value)).toEqual([1439 * 4096, 2879 * 4096, 2999 * 4096])
    const { samples } = await metricSizes(scope)
    expect(samples).toBe(3000)
  } finally {
    await close()
  }
})

test('a packing that dies leaves all where it was, and what comes meanwhile is packed after it', async () => {
  const { all, close, database, scope, seriesId } = await measured()
  try {
    await writeSamples(database, [{ seriesId, at: monday, value: 1 }])
    // A part that cannot be made: a table of its name is there already.
    await run(scope, 'create table metric_packs_2026_5 (x int)')
    await expect(packIncoming(database)).rejects.toThrow()
    await writeSamples(database, [{ seriesId, at: monday + minute, value: 2 }])
    expect((await all()).values).toEqual([1, 2])
    await run(scope, 'drop table metric_packs_2026_5')
    expect(await packIncoming(database)).toEqual({ samples: 1, packs: 1 })
    expect(await packIncoming(database)).toEqual({ samples: 1, packs: 1 })
    expect((await all()).values).toEqual([1, 2])
  } finally {
    await close()
  }
})

test('who writes and who packs at the same time lose nothing and double nothing', async () => {
  const { all, close, database, seriesId } = await measured()
  try {
    const writing = async (part: number) => {
      for (let index = 0; index < 20; index += 1)
        await writeSamples(database, [
          { seriesId, at: monday + (part * 20 + index) * minute, value: part * 20 + index },
        ])
    }
    const packing = async () => {
      for (let index = 0; index < 12; index += 1) await packIncoming(database)
    }
    await Promise.all([writing(0), writing(1), writing(2), packing(), packing()])
    await packIncoming(database)
    await packIncoming(database)
    expect(Array.from((await all()).values)).toEqual(Array.from({ length: 60 }, (_, index) => index))
  } finally {
    await close()
  }
})

test('fields are kept as samples where they have become otherwise, and once a day where not', async () => {
  const { all, close, database, pool, scope, systemId } = await measured()
  try {
    const at = (minutes: number) => new Date(monday + minutes * minute)
    const count = async () => (await row<{ n: string }>(scope, 'select count(*) as n from metric_incoming_0'))?.n
    await sampleLevels(database, systemId, at(0))
    // The pool has two series, each of three volumes one.
    expect(await count()).toBe('5')
    await sampleLevels(database, systemId, at(10))
    expect(await count()).toBe('5')
    await run(scope, 'update pools set written_bytes = 900')
    await run(scope, 'update volumes set written_bytes = 900')
    await sampleLevels(database, systemId, at(12))
    // Volumes are looked at by the hour.
    expect(await count()).toBe('6')
    await sampleLevels(database, systemId, at(61))
    expect(await count()).toBe('9')
    await sampleLevels(database, systemId, at(24 * 60))
    expect(await count()).toBe('14')
    expect((await all()).values).toEqual([5, 900, 900])
    expect((await metricSource(scope, systemId)).sampledAt).toEqual(at(24 * 60))
    expect(await dailyLast(scope, 'written', [pool.id], at(0))).toEqual(
      new Map([
        [
          pool.id,
          [
            { at: at(12).getTime(), value: 900 },
            { at: at(24 * 60).getTime(), value: 900 },
          ],
        ],
      ]),
    )
  } finally {
    await close()
  }
})

test('a forecast is made of every pool that was measured, and made anew in its place', async () => {
  const { close, database, pool, scope, seriesId } = await measured()
  try {
    const full = 2e13
    const days = Array.from({ length: 100 }, (_, at) => ({ seriesId, at: monday + at * day, value: 1e13 + at * 5e10 }))
    await writeSamples(database, days)
    await packIncoming(database)
    const now = new Date(monday + 99 * day + 5)
    expect(await keepForecasts(scope, now)).toBe(1)
    expect(await keepForecasts(scope, now)).toBe(1)
    const found = (await forecastsOf(scope, [pool.id])).get(pool.id)
    expect(found).toMatchObject({ limitBytes: full * 0.9, usedBytes: 1e13 + 99 * 5e10 })
    // 18 TB less 14.95 TB by 0.05 TB a day.
    expect(found).toMatchObject({ reachesLimit: { p50: 61 } })
    const kept = await rows<{ readonly reaches_at: Date }>(scope, 'select reaches_at from growth_forecasts')
    expect(kept.map(each => each.reaches_at.getTime())).toEqual([monday + (99 + 61) * day])
  } finally {
    await close()
  }
})

test('what comes in while forecasts are made stands until the next ones, and waits for a pool that has none', async () => {
  const { close, database, scope, seriesId, systemId } = await measured()
  try {
    await noteGap(scope, systemId, new Date(monday))
    await noteCaughtUp(scope, systemId)
    expect(await caughtUp(scope)).toBeUndefined()
    await writeSamples(database, [{ seriesId, at: monday, value: 1e13 }])
    await packIncoming(database)
    await keepForecasts(scope, new Date(monday + 1))
    const came = await caughtUp(scope)
    if (came === undefined) throw new Error('Something has come in.')
    // Whatever the clocks of workers say: another hour comes in after that was asked, and before it is noted.
    await pause(2)
    await noteCaughtUp(scope, systemId)
    await noteFollowed(scope, came)
    const later = await caughtUp(scope)
    expect(later?.getTime()).toBeGreaterThan(came.getTime())
    await noteFollowed(scope, later ?? came)
    expect(await caughtUp(scope)).toBeUndefined()
  } finally {
    await close()
  }
})

test('months that are over are dropped as a whole, and with an object its course', async () => {
  const { all, close, database, scope, seriesId } = await measured()
  try {
    await writeSamples(database, [
      { seriesId, at: monday, value: 1 },
      { seriesId, at: monday + 60 * day, value: 2 },
    ])
    await packIncoming(database)
    const gone = await dropOldMetrics(scope, new Date(monday + (400 + 40) * day))
    expect(gone).toEqual(['metric_packs_2026_5'])
    expect((await all()).values).toEqual([2])
    await run(scope, 'delete from metric_series')
    await dropOldMetrics(scope, new Date(monday + 440 * day))
    expect((await metricSizes(scope)).samples).toBe(0)
  } finally {
    await close()
  }
})

test('a gap stays known until it is filled, and what was refused is counted over all times', async () => {
  const { close, scope, systemId } = await measured()
  try {
    await noteGap(scope, systemId, new Date(monday + day))
    await noteGap(scope, systemId, new Date(monday))
    await noteGap(scope, systemId, new Date(monday + 2 * day))
    expect((await metricSource(scope, systemId)).gapSince).toEqual(new Date(monday))
    await noteFilled(scope, systemId, null, new Map([['is below zero', 2]]))
    await noteFilled(
      scope,
      systemId,
      'It has none.',
      new Map([
        ['is below zero', 1],
        ['is not a number', 4],
      ] as const),
    )
    expect(await metricSource(scope, systemId)).toEqual({
      sampledAt: undefined,
      countedAt: undefined,
      gapSince: undefined,
      noHistory: 'It has none.',
      refused: { 'is below zero': 3, 'is not a number': 4 },
    })
  } finally {
    await close()
  }
})

test('of a system its warmest sensor is kept, and of a share what it holds', async () => {
  const { close, database, scope, systemId } = await measured()
  try {
    const sensor = (name: string, unit: string, reading: number) => ({ name, unit, reading, cautionAt: null })
    const share = sampleShare({ usedBytes: 4096n })
    const found = sampleInventory({
      sensors: [sensor('inlet', 'Cel', 24), sensor('outlet', 'Cel', 38.5), sensor('fan', 'RPM', 9000)],
      fileServices: [{ ...sampleFileService(), locator: '/f' }],
      shares: [{ ...share, fileServiceLocator: '/f', volumeLocator: '/v/0' }],
    })
    await storeInventory(database, systemId, found, await nextReading(scope), undefined)
    await sampleLevels(database, systemId, new Date(monday))
    const last = (metric: string) =>
      row<{ kind: string; value: number }>(
        scope,
        `select kind, last_value as value from metric_series where metric = $1 and kind in ('systems', 'shares')`,
        [metric],
      )
    expect(await last('warmth')).toEqual({ kind: 'systems', value: 38.5 })
    expect(await last('written')).toEqual({ kind: 'shares', value: 4096 })
    // What moves counts up no revision: no plan rests on a temperature.
    const { revision } = (await objects(scope, 'systems'))[0] ?? {}
    const cooler = sampleInventory({ ...found, sensors: [sensor('inlet', 'Cel', 22)] })
    await storeInventory(database, systemId, cooler, await nextReading(scope), undefined)
    const [system] = await objects(scope, 'systems')
    expect([system?.warmestCelsius, system?.revision]).toEqual([22, revision])
  } finally {
    await close()
  }
})
