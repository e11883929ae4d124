import { those } from '@/core/estate'
import {
  dailyLast,
  forecastsOf,
  keepForecasts,
  keepRecent,
  metricSource,
  packIncoming,
  samplesBetween,
} from '@/records/metrics'
import { estateNow } from '@/records/inventory'
import { missedLatency, slowest, volumeLoad } from '@/records/queries'
import { workbench } from './testing/workbench'

const day = 86_400_000

let bench: Awaited<ReturnType<typeof workbench>>
beforeAll(async () => (bench = await workbench(1)), 120_000)
afterAll(() => bench.close())

test('what a system has kept of its past is there soon after it is registered, joins what is measured, and says when it is full', async () => {
  const { database } = bench
  const scope = { database }
  const systemId = await bench.registered('bittern')
  const { pools } = await bench.estate()
  const bulk = pools.find(each => each.name === 'bittern-bulk-01')
  if (bulk === undefined) throw new Error('The fleet has the pool.')
  const levels = async () => (await dailyLast(scope, 'written', [bulk.id], new Date(0))).get(bulk.id) ?? []
  await bench.until(async () => (await levels()).length > 100, 'a history of the pool')
  await bench.until(async () => (await metricSource(scope, systemId)).sampledAt !== undefined, 'samples of its fields')
  const now = await estateNow(scope)
  const days = await levels()
  const steps = days.slice(1).map(({ value }, index) => Math.abs(value - (days[index]?.value ?? 0)))
  // The bulk load and the mass delete; every other day, the last one too, differs by what a day brings.
  expect(steps.filter(step => step > 2 ** 40)).toHaveLength(2)
  expect((days.at(-1)?.at ?? 0) > now.getTime() - day).toBe(true)
  expect(days.at(-1)?.value).toBe(Number(bulk.writtenBytes))
  await keepForecasts(scope, now)
  const outlook = (await forecastsOf(scope, [bulk.id])).get(bulk.id)
  if (outlook === undefined || 'why' in outlook) throw new Error('Enough is known of the pool.')
  expect(outlook.slopeBytesPerDay / 2 ** 30).toBeGreaterThan(150)
  expect(outlook.slopeBytesPerDay / 2 ** 30).toBeLessThan(230)
  expect(outlook.reachesLimit.p50 ?? 0).toBeGreaterThan(14)
  expect(outlook.reachesLimit.p50 ?? 999).toBeLessThan(32)
}, 120_000)

test('time in which nobody looked is filled from what the system kept itself, by the hour', async () => {
  const { database, fleet } = bench
  const scope = { database }
  const { pools, systems, volumes } = await bench.estate([those('volumes', 'name', 'ct-scans-derived-01')])
  const bulk = pools.find(each => each.name === 'bittern-bulk-01')
  const before = await estateNow(scope)
  fleet.clock.step(30 * 3600)
  const hours = async () => {
    const found = await samplesBetween(scope, 'written', bulk?.id ?? '', before, new Date(before.getTime() + 2 * day))
    return new Set(Array.from(found.times, at => Math.floor(at / 3_600_000))).size
  }
  await bench.until(async () => (await hours()) >= 29, 'the hours that were missed')
  const latencies = async () => {
    const id = volumes[0]?.id ?? ''
    return samplesBetween(scope, 'latency', id, before, new Date(before.getTime() + 2 * day))
  }
  await bench.until(async () => (await latencies()).times.length >= 29, 'how fast its volumes answered meanwhile')
  expect(Array.from((await latencies()).values).every(value => value > 0.0001 && value < 1)).toBe(true)
  expect((await metricSource(scope, systems[0]?.id ?? '')).refused).toEqual({})
}, 120_000)

test('how fast volumes answer is known over two weeks, and who was loud in the worst hour of the last', async () => {
  const { database } = bench
  const scope = { database }
  await packIncoming(database)
  await packIncoming(database)
  const now = await estateNow(scope)
  await keepRecent(scope, now)
  const { lines, total } = await slowest(scope, 20)
  expect(total).toBe(9)
  expect(lines.map(each => each.p95Seconds)).toEqual(lines.map(each => each.p95Seconds).sort((a, b) => b - a))
  const homes = lines.find(each => each.name === 'staff-homes-01')
  const load = await volumeLoad(scope, homes?.id ?? '', now, undefined)
  expect(load?.course.filter(each => each.latencySeconds !== null).length).toBeGreaterThan(6 * 24)
  // On Monday mornings all that was scanned is derived anew.
  expect(new Date(load?.lookedAt ?? 0).getUTCDay()).toBe(1)
  expect(load?.loud.names[load.loud.volumes[0]?.id ?? '']).toBe('ct-scans-derived-01')
  const [monday = []] = load?.strata ?? []
  expect(Math.max(...monday.map(each => each ?? 0))).toBe(
    Math.max(...(load?.strata ?? []).flat().map(each => each ?? 0)),
  )
  expect(await missedLatency(scope)).toBeUndefined()
  const [promised] = await database.query(`select gen_random_uuid() as id`)
  const { id: classId } = promised[0] as { readonly id: string }
  await database.query(
    `insert into service_classes (id, name, time_zone, media, latency_milliseconds, made_by_step) values ('${classId}', 'Quick', 'UTC', 'any', 0.5, 'a test')`,
  )
  await database.query(`update volumes set class_id = '${classId}' where name in ('staff-homes-01', 'ticket-desk-01')`)
  expect(await missedLatency(scope)).toMatchObject({
    count: 1,
    worst: { name: 'staff-homes-01', promisedSeconds: 0.0005 },
  })
  // Of another pool nobody had to wait for it.
  const desk = lines.find(each => each.name === 'ticket-desk-01')
  expect((await volumeLoad(scope, desk?.id ?? '', now, undefined))?.loud.utilization).toBeLessThan(0.5)
}, 60_000)
