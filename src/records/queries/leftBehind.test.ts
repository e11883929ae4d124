import { randomBytes } from 'node:crypto'
import { run } from '../database'
import { nextReading, storeInventory } from '../inventory'
import { keepRecent, packIncoming, seriesAt, writeSamples } from '../metrics'
import { objects } from '../objects'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import type { LeftDays } from '@/core/views'
import { leftBehind } from '.'

const hour = 3_600_000
const day = 24 * hour
const now = Date.UTC(2026, 4, 4, 12)
type Records = Awaited<ReturnType<typeof freshDatabase>>
let records: Records
const scope = () => ({ database: records.database })
const ids: Record<string, string> = {}

/** Five volumes: nobody sees `a`; `b` is asked for nothing since fifty days; `c` serves; `d` was never asked; `e` is thick and stands still. */
beforeAll(async () => {
  records = await freshDatabase()
  const { systemId } = await enrolled(scope(), randomBytes(32), 'heron')
  const [pattern] = sampleInventory().volumes
  if (pattern === undefined) throw new Error('There is a volume.')
  const names = ['a', 'b', 'c', 'd', 'e']
  const volumes = names.map((name, index) => ({
    ...{ ...pattern, name, locator: `/v/${name}`, naa: `6${index}`.padEnd(32, '0') },
    ...{ isThin: name !== 'e', sizeBytes: 10n ** 12n, writtenBytes: BigInt(index + 1) * 10n ** 9n },
  }))
  const mappings = names.slice(1).map((name, lun) => ({
    ...{ locator: `/m/${name}`, volumeLocator: `/v/${name}`, snapshotLocator: null, groupName: 'desk', lun },
    initiators: ['iqn.2026-01.example:desk'],
  }))
  const snapshot = (name: string, more: object) => ({
    ...{ locator: `/s/${name}`, volumeLocator: '/v/c', name, naa: `7${name}`.padEnd(32, '0'), sizeBytes: 10n ** 12n },
    ...{ takenAt: new Date(now - 40 * day).toISOString(), state: 'consistent' as const, ownBytes: 10n ** 8n },
    ...{ heldUntil: null, reason: null, dueAt: null, heldReason: null, goesAt: null },
    ...more,
  })
  const snapshots = [snapshot('1', {}), snapshot('2', { takenAt: new Date(now - day).toISOString() })]
  const inventory = sampleInventory({ volumes, mappings, snapshots: snapshots as never })
  await storeInventory(records.database, systemId, inventory, await nextReading(scope()))
  for (const { name, id } of await objects(scope(), 'volumes')) ids[name] = id
  const seriesOf = await seriesAt(
    scope(),
    systemId,
    names.map(name => `/v/${name}`),
    ['requests', 'written'],
  )
  const hours = Array.from({ length: 60 * 24 }, (_, index) => now - (60 * 24 - index) * hour)
  const asked = (name: string, value: (at: number) => number) =>
    hours.map(at => ({ seriesId: seriesOf(`/v/${name}`, 'requests') ?? 0, at, value: value(at) }))
  await writeSamples(records.database, [
    ...asked('b', at => (at < now - 50 * day ? 9 : 0)),
    ...asked('c', () => 3),
    ...asked('d', () => 0),
    ...asked('e', () => 1),
    ...hours.map(at => ({ seriesId: seriesOf('/v/e', 'written') ?? 0, at, value: 5e9 })),
  ])
  await packIncoming(records.database)
  await keepRecent(scope(), new Date(now))
  await run(scope(), "update metric_series set past_at = $1, past_value = 5e9 where metric = 'written'", [
    new Date(now - 35 * day),
  ])
})
afterAll(() => records.close())

const found = async (days: LeftDays) =>
  Object.fromEntries(
    (await leftBehind(scope(), days, new Date(now))).lists.map(({ why, lines }) => [
      why,
      lines.map(({ name, snapshotName }) => snapshotName ?? name),
    ]),
  )

test('what nobody sees, asks, writes to or keeps is found by its list, and nothing that serves', async () => {
  expect(await found(30)).toEqual({ unseen: ['a'], idle: ['d', 'b'], 'not growing': ['e'], 'without a rule': ['1'] })
  const { lists } = await leftBehind(scope(), 30, new Date(now))
  const [unseen, idle, thick, snapshots] = lists
  expect([unseen?.count, unseen?.bytes, thick?.bytes, snapshots?.bytes]).toEqual([1, 1e9, 1e12 - 5e9, 1e8])
  // Since when is told where it is known.
  expect(idle?.lines.map(({ since }) => since)).toEqual([null, new Date(now - 50 * day - hour).toISOString()])
})

test('more days are asked for longer', async () => {
  expect(await found(90)).toEqual({ unseen: ['a'], idle: [], 'not growing': [], 'without a rule': [] })
  expect((await found(7))['without a rule']).toEqual(['1'])
})

test('who is asked again, shared, cloned from or held is left behind no longer', async () => {
  const [snapshot] = (await objects(scope(), 'snapshots')).filter(({ name }) => name === '1')
  await run(scope(), "update snapshots set held_reason = 'audit' where id = $1", [snapshot?.id])
  expect((await found(30))['without a rule']).toEqual([])
  await run(scope(), 'update snapshots set held_reason = null where id = $1', [snapshot?.id])
  await run(scope(), 'update volumes set clone_of_id = $1 where id = $2', [snapshot?.id, ids['a']])
  expect((await found(30))['without a rule']).toEqual([])
  await run(scope(), 'update volumes set clone_of_id = null, is_image = true where id = $1', [ids['a']])
  expect((await found(30))['unseen']).toEqual([])
  // A mapping that has gone is none: since then nobody sees it.
  await run(scope(), 'update mappings set missing_since = $1 where volume_id = $2', [new Date(now - day), ids['d']])
  const [unseen, idle] = (await leftBehind(scope(), 30, new Date(now))).lists
  expect(unseen?.lines.map(({ name, since }) => [name, since])).toEqual([['d', new Date(now - day).toISOString()]])
  expect(idle?.lines.map(({ name }) => name)).toEqual(['b'])
})

test('what is asked for something, whoever asks, is not among what nobody sees', async () => {
  await run(scope(), "update metric_series set recent_mean = 2 where object_id = $1 and metric = 'requests'", [
    ids['d'],
  ])
  expect((await found(30))['unseen']).toEqual([])
  await run(scope(), "update metric_series set recent_mean = 0 where object_id = $1 and metric = 'requests'", [
    ids['d'],
  ])
  expect((await found(30))['unseen']).toEqual(['d'])
})

test('once asked again it is not idle, and packs from before are not looked through anew', async () => {
  const { rows } = await import('../database')
  const seriesId = (
    await rows<{ readonly id: number }>(
      scope(),
      "select id from metric_series where object_id = $1 and metric = 'requests'",
      [ids['b']],
    )
  )[0]?.id
  await writeSamples(records.database, [{ seriesId: seriesId ?? 0, at: now + hour, value: 4 }])
  await packIncoming(records.database)
  await keepRecent(scope(), new Date(now + 2 * hour))
  expect((await leftBehind(scope(), 30, new Date(now + 2 * hour))).lists[1]?.lines).toEqual([])
})
