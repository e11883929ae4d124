import { those } from '@/core/estate'
import { randomBytes } from 'node:crypto'
import type { Inventory } from '@/ports'
import { rows, type Scope } from '../database'
import { loadEstate } from '../estate'
import { volumeList } from '../queries'
import { enrolled, freshDatabase, sampleDriveFound, sampleInventory } from '../testing'
import { forgetMissing, gone, hold, missingOf, nextReading, storeInventory, type Kept } from '.'

let records: Awaited<ReturnType<typeof freshDatabase>>
let scope: Scope
let systemId = ''
beforeAll(async () => {
  records = await freshDatabase()
  scope = { database: records.database }
  systemId = (await enrolled(scope, randomBytes(32), 'heron')).systemId
  await store(sampleInventory())
})
afterAll(() => records.close())

const store = async (found: Inventory, number?: number) =>
  (await storeInventory(records.database, systemId, found, number ?? (await nextReading(scope)))).notKept
const volumes = () =>
  rows<{ id: string; name: string; locator: string; state: string; missing: boolean }>(
    scope,
    `select id, name, locator, state, missing_since is not null as missing from volumes order by name`,
  )
const sample = sampleInventory()

test('one empty answer forgets nothing: ids, holdings and names are the same when they are stated again', async () => {
  const before = await volumes()
  await hold(scope, before.find(volume => volume.name === 'a_1')?.id ?? '', new Date('2030-01-01'))
  await store(sampleInventory({ volumes: [], pools: [], drives: [] }))
  expect((await volumes()).every(volume => volume.missing)).toBe(true)
  expect((await missingOf(scope, systemId)).map(each => [each.kind, each.count])).toEqual([
    ['volumes', 3],
    ['drives', 3],
    ['pools', 1],
  ])
  // Nothing may be planned on what may be gone; a list shows it as missing.
  expect((await loadEstate(scope, [those('volumes', 'id', ...before.map(each => each.id))], '')).volumes).toEqual([])
  expect((await volumeList(scope, {})).items.every(line => line.missingSince !== null)).toBe(true)
  await store(sampleInventory())
  const after = await volumes()
  expect(after.map(each => each.id)).toEqual(before.map(each => each.id))
  expect(after.map(each => each.missing)).toEqual([false, false, false])
  expect(after.find(volume => volume.name === 'a_1')?.state).toBe('holding')
})

test('an object is known by its durable name wherever it stands, and another one at its place is another', async () => {
  const before = await volumes()
  const [first, second, third] = sample.volumes
  if (first === undefined || second === undefined || third === undefined) throw new Error('three volumes')
  const stranger = { ...first, naa: 'f'.repeat(32), name: 'stranger' }
  // The first has moved to a new place, the second and third have changed places, a stranger stands where the first was.
  await store(
    sampleInventory({
      volumes: [
        stranger,
        { ...first, locator: '/v/9' },
        { ...second, locator: third.locator },
        { ...third, locator: second.locator },
      ],
    }),
  )
  const after = await volumes()
  const idOf = (name: string) => after.find(volume => volume.name === name)?.id
  expect(before.map(volume => idOf(volume.name))).toEqual(before.map(volume => volume.id))
  expect(before.map(volume => volume.id)).not.toContain(idOf('stranger'))
  expect(after.find(volume => volume.name === first.name)).toMatchObject({ locator: '/v/9', state: 'holding' })
  expect(after.find(volume => volume.name === 'stranger')?.state).toBe('in use')
  await store(sampleInventory())
})

test('a drive that changes its bay is the same drive', async () => {
  const idOf = async (serial: string) =>
    (await rows<{ id: string }>(scope, `select id from drives where serial = '${serial}' and missing_since is null`))[0]
      ?.id
  const before = await idOf('SER2')
  const moved = sampleDriveFound(2, { locator: '/d/7', bay: 7 })
  await store(sampleInventory({ drives: [sampleDriveFound(1), moved, sampleDriveFound(3)] }))
  expect(await idOf('SER2')).toBe(before)
  await store(sampleInventory())
})

test('an older reading never overwrites a newer one, however late it comes', async () => {
  const [older, newer] = [await nextReading(scope), await nextReading(scope)]
  const named = (name: string) => sampleInventory({ pools: sample.pools.map(pool => ({ ...pool, name })) })
  await store(named('newer'), newer)
  await store(named('older'), older)
  expect((await loadEstate(scope, [], '')).pools.map(pool => pool.name)).toEqual(['newer'])
  await store(sampleInventory())
})

test('what is stated twice is kept once, and what names no pool is left out; both are told', async () => {
  const [first] = sample.volumes
  if (first === undefined) throw new Error('a volume')
  const notKept = await store(
    sampleInventory({
      volumes: [
        ...sample.volumes,
        { ...first, locator: '/v/77' },
        { ...first, naa: 'e'.repeat(32), locator: '/v/78', poolLocator: '/nowhere' },
      ],
    }),
  )
  expect(notKept.map(each => each.locator).sort()).toEqual(['/v/77', '/v/78'])
  expect((await volumes()).filter(volume => !volume.missing)).toHaveLength(3 + 0)
})

test('what a change of ours has removed goes; what is only missing stays until somebody says that it is gone', async () => {
  await store(sampleInventory({ volumes: sample.volumes.slice(0, 1) }))
  const [, second] = sample.volumes
  await gone(scope, systemId, [second?.locator ?? '', sample.volumes[0]?.locator ?? ''])
  // The first is still stated, so it is left; the third was not named.
  expect((await volumes()).filter(each => each.name !== 'stranger').map(each => [each.name, each.missing])).toEqual([
    ['a_1', false],
    ['b-3', true],
  ])
  expect(await forgetMissing(scope, systemId)).toBeGreaterThan(0)
  expect((await volumes()).map(each => each.name)).toEqual(['a_1'])
})

test('a reading that states what the last one stated writes nothing, and looks again once others have changed the records', async () => {
  const read = async (found: Inventory, last?: Kept) =>
    storeInventory(records.database, systemId, found, await nextReading(scope), last)
  const rowsOf = () => rows<{ id: string; at: string }>(scope, 'select id, xmin::text as at from volumes order by id')
  const systemAt = async () => (await rows<{ at: string }>(scope, 'select xmin::text as at from systems'))[0]?.at
  const first = await read(sampleInventory())
  const [written, system] = [await rowsOf(), await systemAt()]
  const second = await read(sampleInventory(), first)
  expect(second).toBe(first)
  // One that remembers nothing compares, and writes as little.
  expect((await read(sampleInventory())).number).toBe(first.number)
  expect([await rowsOf(), await systemAt()]).toEqual([written, system])

  const [one] = sample.volumes
  const other = await read({
    ...sample,
    volumes: sample.volumes.map(each => (each === one ? { ...each, sizeBytes: 7n } : each)),
  })
  expect(other.number).toBeGreaterThan(first.number)
  const back = await read(sampleInventory(), first)
  expect(back.number).toBeGreaterThan(other.number)
  const sizes = await rows<{ bytes: string }>(
    scope,
    'select size_bytes::text as bytes from volumes where locator = $1',
    [one?.locator],
  )
  expect(sizes).toEqual([{ bytes: `${one?.sizeBytes}` }])
})

test('a reading that is to stand is overtaken by none that began before it, though it finds nothing new', async () => {
  const sizeOf = async () =>
    (await rows<{ bytes: string }>(scope, `select size_bytes::text as bytes from volumes where name = 'a_1'`))[0]?.bytes
  const stating = (sizeBytes: bigint): Inventory => ({
    ...sample,
    volumes: sample.volumes.map((each, index) => (index === 0 ? { ...each, sizeBytes } : each)),
  })
  const read = (found: Inventory, number: number, last?: Kept, isFirm?: boolean) =>
    storeInventory(records.database, systemId, found, number, last, isFirm)
  for (const remembers of [false, true]) {
    const first = await read(stating(5n), await nextReading(scope))
    // It looked before the volume grew, and comes in last; the one that is made for the change finds what an event has told already.
    const [told, slow, firm] = [await nextReading(scope), await nextReading(scope), await nextReading(scope)]
    const grown = await read(stating(9n), told, first)
    const stood = await read(stating(9n), firm, remembers ? grown : undefined, true)
    expect(stood.number).toBe(firm)
    await read(stating(5n), slow, grown)
    expect(await sizeOf()).toBe('9')
    // What began after it is heard again.
    await read(stating(5n), await nextReading(scope), stood)
    expect(await sizeOf()).toBe('5')
  }
})
