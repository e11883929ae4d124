import { within } from '@/core/estate'
import { randomBytes } from 'node:crypto'
import { inTransaction, run, type Scope } from '../database'
import { nextReading, storeInventory } from '../inventory'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import { loadEstate } from './loadEstate'
import { unchanged, type Reading } from './unchanged'

let records: Awaited<ReturnType<typeof freshDatabase>>
let scope: Scope
let systemId: string
beforeAll(async () => {
  records = await freshDatabase()
  scope = { database: records.database }
  systemId = (await enrolled(scope, randomBytes(32), 'godwit')).systemId
  await storeInventory(records.database, systemId, sampleInventory(), await nextReading(scope))
})
afterAll(() => records.close())

/** Volumes of the system, and how often they were really read. */
function counted(of = systemId): { readonly reading: Reading; readonly count: () => number } {
  let reads = 0
  const read = () => {
    reads += 1
    return Promise.resolve([{ read: reads }])
  }
  return { reading: { table: 'volumes', systemId: of, isLocated: true, read }, count: () => reads }
}

const drivesNow = async () => (await loadEstate(scope, within(systemId), '')).drives

test('what stands as it stood is read once; a row that is another one, gone or come is seen at once', async () => {
  const { reading, count } = counted()
  await unchanged(scope, [reading])
  expect(await unchanged(scope, [reading])).toEqual([[{ read: 1 }]])
  for (const change of [
    'update volumes set name = name where id = (select min(id::text)::uuid from volumes)',
    'update volumes set missing_since = now() where id = (select min(id::text)::uuid from volumes)',
    'update volumes set missing_since = null where missing_since is not null',
  ]) {
    const before = count()
    await run(scope, change)
    await unchanged(scope, [reading])
    await unchanged(scope, [reading])
    expect(count() - before).toBe(1)
  }
})

test('rows of another system, and another table, make nothing be read again', async () => {
  const { reading, count } = counted()
  const ofNobody = counted('00000000-0000-7000-8000-000000000000')
  await unchanged(scope, [reading, ofNobody.reading])
  const before = count()
  await run(scope, 'update drives set model = model')
  await unchanged(scope, [reading, ofNobody.reading])
  expect(count()).toBe(before)
  await run(scope, 'update volumes set name = name')
  await unchanged(scope, [reading, ofNobody.reading])
  expect(count()).toBe(before + 1)
  expect(ofNobody.count()).toBe(1)
})

test('what a transaction alters is seen within it, and no longer once it has been undone', async () => {
  const [first] = await drivesNow()
  await expect(
    inTransaction(records.database, async inside => {
      await run(inside, "update drives set model = 'of a moment' where id = $1", [first?.id])
      const seen = (await loadEstate(inside, within(systemId), '')).drives
      expect(seen.find(({ id }) => id === first?.id)?.model).toBe('of a moment')
      throw new Error('undone')
    }),
  ).rejects.toThrow('undone')
  expect((await drivesNow()).find(({ id }) => id === first?.id)?.model).toBe(first?.model)
})

test('what changes while it is read is read again', async () => {
  let reads = 0
  const reading: Reading = {
    ...{ table: 'volumes', systemId, isLocated: true },
    read: async () => {
      reads += 1
      if (reads === 1) await run(scope, 'update volumes set name = name where system_id = $1', [systemId])
      return [{ read: reads }]
    },
  }
  await run(scope, 'update volumes set name = name where system_id = $1', [systemId])
  await unchanged(scope, [reading])
  expect(await unchanged(scope, [reading])).toEqual([[{ read: 2 }]])
})
