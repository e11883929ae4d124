import { setTimeout as pause } from 'node:timers/promises'
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
import { againstPromise, healthPage, slowest, standingFindings, volumeLoad } from '@/records/queries'
import { workbench } from './testing/workbench'

const day = 86_400_000

let bench: Awaited<ReturnType<typeof workbench>>
beforeAll(async () => (bench = await workbench(1, { isMetered: true })))
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
})

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
  // No hour has to go by before lists and forecasts know of it.
  await bench.until(async () => (await slowest(scope, 20)).total === 9, 'how fast they were in the last day')
})

test('a drive that errs more from week to week is told of before it fails, from what its system has kept', async () => {
  const scope = { database: bench.database }
  const told = async () => (await standingFindings(scope, null)).filter(each => each.finding.check === 'drive-errors')
  await bench.until(async () => (await told()).length > 0, 'its finding')
  const [only] = await told()
  expect(only?.finding).toMatchObject({
    gravity: 'soon',
    title: expect.stringMatching(/^Drive \w{4} in bittern, .*bay 7 errs more from week to week$/),
  })
  const [worst] = (await healthPage(scope)).drives
  expect(worst).toMatchObject({ name: 'Drive in bay 7', poolName: 'bittern-bulk-01', state: 'fine', lostErrors: 0 })
  const counted = (await dailyLast(scope, 'errors', [worst?.id ?? ''], new Date(0))).get(worst?.id ?? '') ?? []
  expect(counted.length).toBeGreaterThan(28)
  expect(counted.every(({ value }, index) => value >= (counted[index - 1]?.value ?? 0))).toBe(true)
  // Of all the other drives, which have none, no series is kept.
  const [series] = await bench.database.query(`select count(*)::int as count from metric_series where kind = 'drives'`)
  expect(series).toEqual([{ count: 1 }])
})

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
  expect(await againstPromise(scope, 6)).toEqual({ lines: [], missing: 0 })
  const [promised] = await database.query(`select gen_random_uuid() as id`)
  const { id: classId } = promised[0] as { readonly id: string }
  await database.query(
    `insert into service_classes (id, name, time_zone, media, latency_milliseconds, made_by_step) values ('${classId}', 'Quick', 'UTC', 'any', 0.5, 'a test')`,
  )
  await database.query(`update volumes set class_id = '${classId}' where name in ('staff-homes-01', 'ticket-desk-01')`)
  const against = await againstPromise(scope, 6)
  expect(against).toMatchObject({
    missing: 1,
    lines: [{ name: 'staff-homes-01', promisedSeconds: 0.0005 }, { name: 'ticket-desk-01' }],
  })
  expect(await againstPromise(scope, 1)).toEqual({ missing: 1, lines: against.lines.slice(0, 1) })
  // Of another pool nobody had to wait for it.
  const desk = lines.find(each => each.name === 'ticket-desk-01')
  expect((await volumeLoad(scope, desk?.id ?? '', now, undefined))?.loud.utilization).toBeLessThan(0.5)
})

test('of a system that is silent nothing is kept as measured until it answers; then its own hours are', async () => {
  const scope = { database: bench.database }
  const { fleet } = bench
  // By its clock the estate knows the time while the other is silent.
  await bench.registered('heron')
  const bulk = (await bench.estate()).pools.find(each => each.name === 'bittern-bulk-01')
  const harmless = { milliseconds: 0, retryAfterSeconds: 0, atRatio: 0, drive: '', times: 0 }
  fleet.faults.inject({ target: 'bittern', kind: 'not-answering', ...harmless })
  const reach = async () => (await bench.estate()).systems.find(each => each.name === 'bittern')?.reach
  await bench.until(async () => (await reach()) === 'not answering', 'it is found silent')
  const before = await estateNow(scope)
  fleet.clock.step(26 * 3600)
  await bench.until(
    async () => (await estateNow(scope)).getTime() - before.getTime() > 25 * 3_600_000,
    'the time goes on',
  )
  await pause(3000)
  const hours = async () => {
    const begin = new Date(before.getTime() + 3_600_000)
    const { times } = await samplesBetween(scope, 'written', bulk?.id ?? '', begin, new Date(begin.getTime() + day))
    return new Set(Array.from(times, at => Math.floor(at / 3_600_000))).size
  }
  expect(await hours()).toBe(0)
  fleet.faults.clear()
  await bench.until(async () => (await hours()) >= 24, 'its own hours')
})

test('what could not be written when it was counted is asked for again: no hour is missing', async () => {
  const { database, fleet } = bench
  const scope = { database }
  const { volumes } = await bench.estate([those('volumes', 'name', 'ct-scans-derived-01')])
  const id = volumes[0]?.id ?? ''
  const before = await estateNow(scope)
  const hours = async () => {
    const found = await samplesBetween(scope, 'latency', id, before, new Date(before.getTime() + day))
    return new Set(Array.from(found.times, at => Math.floor(at / 3_600_000))).size
  }
  // A sequence counts also what is undone.
  await database.query(`
    create sequence refusals;
    create function refuse_latency() returns trigger language plpgsql as $$ begin
      if exists (select from metric_series where id = new.series_id and metric = 'latency') then
        perform nextval('refusals');
        raise exception 'the disk is full';
      end if;
      return new;
    end $$;
    create trigger refused before insert on metric_incoming_0 for each row execute function refuse_latency();
    create trigger refused before insert on metric_incoming_1 for each row execute function refuse_latency();`)
  const refusals = async () => {
    const [found] = await database.query('select is_called from refusals')
    return (found[0] as { readonly is_called: boolean }).is_called
  }
  fleet.clock.step(5 * 3600)
  await bench.until(refusals, 'hours that could not be written')
  expect(await hours()).toBe(0)
  await database.query('drop trigger refused on metric_incoming_0; drop trigger refused on metric_incoming_1')
  fleet.clock.step(3600)
  await bench.until(async () => (await hours()) >= 6, 'every hour since')
})
