import { randomBytes } from 'node:crypto'
import { Client } from 'pg'
import type { Sequelize } from 'sequelize'
import {
  addAdministrator,
  addFirstAdministrator,
  administratorOf,
  bearerOf,
  firstCode,
  makeToken,
  openSession,
  removeAdministrator,
  revokeToken,
  tokensOf,
} from './access'
import { intakeState } from '@/core/estate'
import type { Inventory } from '@/ports'
import { inTransaction, rows, run } from './database'
import { enrolSystem, estateClock, keepClock, nextReading, noteReach, storeInventory, systemAccess } from './inventory'
import { driveCounts, driveList, objectList, search, systemPage, volumeList } from './queries'
import { enrolled, freshDatabase, sampleDriveFound as drive, sampleInventory as inventory } from './testing'

const key = randomBytes(32)
const store = async (found: Inventory) => storeInventory(database, systemId, found, await nextReading({ database }))
let records: Awaited<ReturnType<typeof freshDatabase>>
let database: Sequelize
let systemId: string

beforeAll(async () => {
  records = await freshDatabase()
  database = records.database
  const made = await enrolled({ database }, key, 'array')
  systemId = made.systemId
  expect(await enrolSystem({ database }, key, made.probeId, 'array', null, 'key of array')).toBe(systemId)
  await store(inventory())
})
afterAll(() => records.close())

test('a password is kept sealed, and read back with the key', async () => {
  expect(await systemAccess({ database }, key, systemId)).toMatchObject({ userName: 'admin', password: 'open sesame' })
  const [stored] = await rows<{ sealed_password: Buffer }>({ database }, 'select sealed_password from systems')
  expect(stored?.sealed_password.includes('sesame')).toBe(false)
})

test('reading the same again changes nothing; what plans rest on gets a new revision, what merely moves does not', async () => {
  const revisions = async () =>
    rows<{ name: string; revision: number }>({ database }, 'select name, revision from drives order by bay')
  await store(inventory())
  expect((await revisions()).map(each => each.revision)).toEqual([1, 1, 1])
  await store(inventory({ drives: [drive(1, { powerOnHours: 6 }), drive(2, { state: 'failing' })] }))
  expect(await revisions()).toEqual([
    { name: 'drive 1', revision: 1 },
    { name: 'drive 2', revision: 2 },
    { name: 'drive 3', revision: 2 },
  ])
  const page = await systemPage({ database }, systemId)
  expect(page?.drives[0]?.powerOnHours).toBe(6)
  expect(page?.pools[0]?.provisionedBytes).toBe(9007199254740993n)
})

test('volumes are found by literal text, sorted and paged at the server', async () => {
  const names = async (question: Parameters<typeof volumeList>[1]) =>
    (await volumeList({ database }, question)).items.map(line => line.name)
  expect(await names({ filter: 'a_' })).toEqual(['a_1'])
  expect(await names({ filter: '%' })).toEqual(['a%2'])
  expect(await names({ filter: "'; drop table volumes; --" })).toEqual([])
  expect(await names({ sort: 'size', isDescending: true, limit: 2 })).toEqual(['b-3', 'a%2'])
  expect(await volumeList({ database }, { offset: 2, limit: 1 })).toMatchObject({
    total: 3,
    items: [{ name: 'b-3', sizeBytes: '3000000000000' }],
  })
  expect((await search({ database }, 'SER2')).map(hit => hit.kind)).toEqual(['drive'])
})

test('reading the same again locks no row and writes none', async () => {
  const many = inventory({ drives: Array.from({ length: 600 }, (_, index) => drive(index + 1)) })
  await store(many)
  // Where each row's version stands, and who has last written or locked it: other writers of the server don't come into it.
  const versions = () =>
    rows({ database }, 'select id, ctid::text, xmin::text, xmax::text from drives where system_id = $1 order by id', [
      systemId,
    ])
  const before = await versions()
  await store(many)
  expect(await versions()).toEqual(before)
  await store(inventory({ drives: [drive(1, { powerOnHours: 7 })] }))
  const [first] = (await objectList({ database }, 'drives', { sort: 'name', limit: 1 })).items
  expect(first?.powerOnHours).toBe(7)
})

test('a notice is told where something has changed, and not where a reading has found all as it was', async () => {
  const told: string[] = []
  const listener = new Client({ connectionString: records.url })
  await listener.connect()
  listener.on('notification', ({ payload = '' }) => told.push((JSON.parse(payload) as { of: string }).of))
  await listener.query('listen wendrel')
  const settled = () => listener.query('select 1')
  try {
    await store(inventory({ drives: [drive(1), drive(2)] }))
    await settled()
    told.length = 0
    await store(inventory({ drives: [drive(1), drive(2)] }))
    await noteReach({ database }, systemId, null)
    await settled()
    expect(told).toEqual([])
    await store(inventory({ drives: [drive(1, { state: 'failed' }), drive(2)] }))
    await settled()
    expect(told).toEqual(['drives'])
    await noteReach({ database }, systemId, { why: 'It is silent.', code: 'connection.silent' })
    await settled()
    expect(told).toEqual(['drives', 'systems'])
  } finally {
    await listener.end()
  }
})

test('numbers within names count as numbers, whichever list', async () => {
  const found = [10, 2, 1].map(number => ({ ...drive(number), name: `drive ${number}` }))
  await store(inventory({ drives: found }))
  const { items } = await objectList({ database }, 'drives', { sort: 'name' })
  expect(items.map(each => each.name)).toEqual(['drive 1', 'drive 2', 'drive 10'])
  const back = await objectList({ database }, 'drives', { sort: 'name', isDescending: true, limit: 1 })
  expect(back.items.map(each => each.name)).toEqual(['drive 10'])
})

test('the intake sorts by what asks for work, filters by literal text, and its counts add up to its list', async () => {
  const leftOver = { system: 'plover', lastUsedAt: null, partitions: ['100% boot'] }
  const free = { poolLocator: null, role: 'unassigned' }
  const drives = [
    drive(1),
    drive(2, free),
    drive(3, { ...free, leftOver }),
    drive(4, { state: 'failed', role: 'unassigned', poolLocator: null, isBoot: true }),
    drive(5, { role: 'spare', media: 'HDD', protocol: 'SAS' }),
  ]
  await store(inventory({ drives }))
  const bays = async (question: Parameters<typeof driveList>[1]) =>
    (await driveList({ database }, question)).items.map(line => line.bay)
  expect(await bays({})).toEqual([4, 3, 2, 5, 1])
  expect(await bays({ isDescending: true })).toEqual([1, 5, 2, 3, 4])
  expect(await bays({ sort: 'label', limit: 2, offset: 1 })).toEqual([2, 3])
  expect(await bays({ filter: '100%' })).toEqual([3])
  expect(await bays({ filter: '_' })).toEqual([])
  expect(await bays({ filter: 'bay 5' })).toEqual([5])
  expect(await bays({ kind: '10 TB HDD' })).toEqual([5])
  expect(await bays({ kind: 'no such kind' })).toEqual([])
  expect(await bays({ state: 'in use' })).toEqual([1])
  const counts = await driveCounts({ database })
  expect(counts.reduce((sum, each) => sum + each.count, 0)).toBe((await driveList({ database }, {})).total)
  // What the database says of a drive is what core says of it.
  const page = await systemPage({ database }, systemId)
  const lines = new Map((await driveList({ database }, {})).items.map(line => [line.id, line.intake]))
  for (const each of page?.drives ?? []) expect(lines.get(each.id)).toBe(intakeState(each))
})

test('the first administrator needs the code, once; the last one stays; a removed one is out at once', async () => {
  const first = (code: string) => inTransaction(database, scope => addFirstAdministrator(scope, code, 'keeper', 'hash'))
  expect(await first('WRONG')).toBeUndefined()
  const code = (await firstCode({ database })) ?? ''
  const keeper = (await first(code.toLowerCase())) ?? ''
  expect(await first(code)).toBeUndefined()
  expect(await inTransaction(database, scope => removeAdministrator(scope, keeper))).toBe(false)
  const other = (await addAdministrator({ database }, 'other', 'hash')) ?? ''
  expect(await addAdministrator({ database }, 'other', 'hash')).toBeUndefined()
  const session = await openSession({ database }, other, undefined)
  const token = await makeToken({ database }, other, 'script')
  expect(await administratorOf({ database }, session)).toMatchObject({ name: 'other' })
  expect(await bearerOf({ database }, token)).toMatchObject({ name: 'other' })
  expect(JSON.stringify(await rows({ database }, 'select * from api_tokens'))).not.toContain(token)
  expect(await revokeToken({ database }, keeper, (await tokensOf({ database }, other))[0]?.id ?? '')).toBe(false)
  expect(await inTransaction(database, scope => removeAdministrator(scope, other))).toBe(true)
  expect(await administratorOf({ database }, session)).toBeUndefined()
  expect(await bearerOf({ database }, token)).toBeUndefined()
})

test("the estate keeps the wall's time unless it is set to follow its systems", async () => {
  const clock = { wallAt: '2026-03-01T10:00:00.000Z', estateAt: '2026-03-13T00:00:00.000Z', rate: 60 }
  await keepClock({ database }, clock)
  expect((await estateClock({ database })).rate).toBe(1)
  await run({ database }, `insert into settings (key, value) values ('estate-clock', '"systems"')`)
  expect(await estateClock({ database })).toEqual(clock)
})
