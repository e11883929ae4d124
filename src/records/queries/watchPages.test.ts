import { randomBytes } from 'node:crypto'
import { sampleClass } from '@/core/estate/testing/samples'
import { driveFindings } from '@/core/findings'
import { readBoard } from '@/core/board'
import { connected } from '@/core/threads'
import { run } from '../database'
import {
  dropClass,
  keepClass,
  keepFindings,
  keepPromiseLooks,
  latestPromises,
  nextReading,
  notePromises,
  storeInventory,
} from '../inventory'
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
    expect(Math.max(...(latency?.shifted?.values ?? []).map(each => each ?? 0))).toBeCloseTo(0.004)
    // A level stands until the next: there are no holes between its days.
    expect(written?.values.every(each => each !== null)).toBe(true)
    expect(requests?.over?.of?.name).toBe(latency?.of?.name)
    expect(page.moving[0]).toMatchObject({ of: { objectId: at('/v/1'), metric: 'requests' }, isTold: true })
    expect(Math.abs(page.moving[0]?.lagMinutes ?? 99)).toBeLessThan(20)
  } finally {
    await close()
  }
})

test('a drive stands on a board by its system and its bay, with the pool whose speed it may explain beside it', async () => {
  const { close, scope, systemId } = await measured()
  try {
    const [drive] = await objects(scope, 'drives')
    const seriesOf = await seriesAt(scope, systemId, [drive?.locator ?? ''], ['errors'])
    const seriesId = seriesOf(drive?.locator ?? '', 'errors') ?? 0
    const daily = Array.from({ length: 20 }, (_, ago) => ({ seriesId, at: now - ago * day, value: 900 - ago * 40 }))
    await writeSamples(scope.database, daily)
    const board = readBoard({ lanes: `errors.${drive?.id}`, lane: '0', hours: '336' })
    const { lanes, moving } = await boardPage(scope, board, new Date(now))
    expect(lanes[0]?.of).toMatchObject({ kind: 'drives', name: `heron, ${drive?.name}` })
    expect(lanes[0]?.values.every(each => each !== null)).toBe(true)
    expect(moving.length).toBeGreaterThan(0)
    // A thread says of its drives that one errs, for as long as that is a finding.
    await run(scope, 'update drives set corrected_errors = 900 where id = $1', [drive?.id])
    const words = async () => Object.values((await threadPage(scope, undefined)).states).map(each => each.words)
    expect(await words()).not.toContain('1 errs more')
    const counted = {
      ...{
        id: drive?.id ?? '',
        name: 'bay 1',
        serial: 'S',
        systemName: 'heron',
        poolId: null,
        poolName: null,
        lost: [],
      },
      corrected: [8, 1].map(ago => ({ at: now - ago * day, value: 900 - ago * 100 })),
    }
    const found = driveFindings([counted], now)
    expect(found).toHaveLength(1)
    await keepFindings(scope, systemId, 'drives', found)
    expect(await words()).toContain('1 errs more')
  } finally {
    await close()
  }
})

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
})

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
    // A share stands where hosts do, by its fill and by whether its service answers.
    await run(
      scope,
      `with service as (insert into file_services (id, system_id, locator, name, name_servers, search_suffixes, instances)
         select gen_random_uuid(), system_id, '/fs', 'files.example', '[]', '[]', '[{"unit":"A","address":"10.0.0.1","prefixLength":24,"standsOn":null}]'
         from volumes where id = $1 returning id, system_id)
       insert into shares (id, system_id, locator, file_service_id, volume_id, name, path, protocols, owner_uid, owner_gid, mode, rules,
         size_bytes, used_bytes)
       select gen_random_uuid(), system_id, '/sh', id, $1, 'scans', '/scans', '["NFSv4_2"]', 0, 0, '0755', '[]', 1000, 950 from service`,
      [at('/v/1')],
    )
    const key = (await threadPage(scope, undefined)).threads.flatMap(({ hosts }) => hosts)[0]?.key ?? ''
    const shared = await threadPage(scope, key)
    expect(shared.threads[0]?.volume[0]?.key).toBe(`volume/${at('/v/1')}`)
    expect(shared.states[key]).toMatchObject({ gravity: 'now', words: '1 silent' })
    await run(scope, `update file_services set instances = '[]'`)
    expect((await threadPage(scope, key)).states[key]).toMatchObject({ gravity: 'soon', words: '95%' })
    // A group whose host reaches nothing any more says so, not that all is fine.
    await run(
      scope,
      `with made as (insert into host_groups (id, name) values (gen_random_uuid(), 'register') returning id),
         host as (insert into hosts (id, host_group_id, name, initiators, enrol_key)
           select gen_random_uuid(), id, 'r1', '[]', 'k' from made returning id, host_group_id),
         shown as (insert into mappings (id, system_id, locator, volume_id, host_group_id, group_name, lun)
           select gen_random_uuid(), system_id, '/m', volumes.id, host_group_id, 'register', 1 from volumes, host where volumes.id = $1)
       insert into host_paths (host_id, system_id, naa, lun, paths, since)
         select host.id, system_id, naa, 1, '[{"target":"t","isUp":false}]', now() from volumes, host where volumes.id = $1`,
      [at('/v/0')],
    )
    const hostsState = async () => {
      const { threads, states } = await threadPage(scope, `volume/${at('/v/0')}`)
      return states[threads[0]?.hosts[0]?.key ?? '']
    }
    expect(await hostsState()).toMatchObject({
      gravity: 'now',
      words: expect.stringMatching(/^r1 reaches nothing of /),
    })
    await run(scope, `update host_paths set paths = '[{"target":"t","isUp":false},{"target":"u","isUp":true}]'`)
    expect(await hostsState()).toMatchObject({ gravity: 'fine', words: 'r1' })
    // Whatever the address says, a page comes of it.
    expect((await threadPage(scope, `volume/' or 1=1 --`)).threads).toHaveLength(3)
  } finally {
    await close()
  }
})

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
    const classId = await keepClass(scope, sampleClass(), null, 'a')
    const look = (at: string, kept: number) =>
      notePromises(scope, [{ classId, promise: 'media', promised: 'on SSD', volumes: 3, kept }], new Date(at))
    // Of one hour one look counts, whoever looks; of the next another.
    for (const at of ['2026-04-30T23:10:00Z', '2026-04-30T23:50:00Z', '2026-05-01T00:05:00Z']) await look(at, 2)
    await look('2026-05-01T01:00:00Z', 3)
    await notePromises(scope, [{ classId, promise: 'copy', promised: 'x', volumes: 0, kept: 0 }], new Date(now))
    const promisesOf = async (month: string) => (await monthReport(scope, month)).promises
    expect(await promisesOf('2026-04')).toMatchObject([{ id: classId, promised: 'on SSD', hours: 3, hoursKept: 2 }])
    expect(await promisesOf('2026-05')).toMatchObject([{ hours: 6, hoursKept: 5 }])
  } finally {
    await close()
  }
})

test('of looks at promises the latest stands, and none of a class that is gone or that nothing is under any more', async () => {
  const { close, scope } = await measured()
  try {
    expect(await latestPromises(scope)).toBeUndefined()
    const [quick, slow] = await Promise.all(
      ['Quick', 'Slow'].map(name => keepClass(scope, sampleClass({ name }), null, name)),
    )
    const kept = (id = '', volumes = 3) => ({
      ...{ id, name: 'as it was called', volumes },
      promises: [
        {
          ...{ promise: 'media' as const, promised: 'on SSD' },
          counts: { kept: volumes, 'at risk': 0, broken: 0, 'not measured': 0 },
        },
      ],
    })
    const keep = (at: string, ...looks: Parameters<typeof keepPromiseLooks>[1][number][]) =>
      keepPromiseLooks(scope.database, looks, new Date(at))
    await keep('2026-04-30T23:00:00Z', kept(slow), kept(quick), kept('00000000-0000-7000-8000-00000000dead'))
    expect(await latestPromises(scope)).toEqual({
      classes: [
        { ...kept(quick), name: 'Quick' },
        { ...kept(slow), name: 'Slow' },
      ],
      lookedAt: '2026-04-30T23:00:00.000Z',
    })
    await keep('2026-05-01T00:00:00Z', kept(quick, 9), kept(slow, 0))
    expect(await latestPromises(scope)).toMatchObject({
      classes: [{ name: 'Quick', volumes: 9 }],
      lookedAt: '2026-05-01T00:00:00.000Z',
    })
    await dropClass(scope, quick ?? '')
    expect(await latestPromises(scope)).toBeUndefined()
  } finally {
    await close()
  }
})
