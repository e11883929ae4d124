import { randomBytes } from 'node:crypto'
import Ajv from 'ajv/dist/2020.js'
import { fieldsOf, kindList, objectKinds, type KindName } from '@/core/estate'
import { formats } from '@/core/input'
import type { Sequelize } from 'sequelize'
import { rows, run, toJson } from '../database'
import { enrolHost, nextReading, storeInventory } from '../inventory'
import { objectList, search } from '../queries'
import { migrate } from '../migrations/migrate'
import { enrolled, freshDatabase, sampleDriveFound, sampleInventory } from '../testing'
import { columnOf, columnsOf, columnTypes, modelOf, object, objects, tableOf } from '.'

let database: Sequelize
let systemId: string
let close: () => Promise<void>
let url: string
const scope = () => ({ database })

const port = (number: number, more: object = {}) => ({
  locator: `/ports/${number}`,
  name: `port ${number}`,
  protocol: 'iSCSI',
  speedBitsPerSecond: 25e9,
  isUp: number % 2 === 0,
  address: `10.0.0.${number}`,
  targetName: null,
  controllerLocator: null,
  ...more,
})
const inventory = sampleInventory({
  controllers: [{ locator: '/c/1', name: 'A', model: null, firmware: null, state: 'fine' }],
  ports: [1, 2, 10].map(number => port(number)),
  drives: [1, 2, 3].map(bay => sampleDriveFound(bay, { capacityBytes: 9007199254740993n + BigInt(bay) })),
  mappings: [
    {
      locator: '/m/1',
      volumeLocator: '/v/0',
      snapshotLocator: null,
      groupName: 'ct-scans',
      lun: 1,
      initiators: ['iqn.x'],
    },
  ],
})
beforeAll(async () => {
  const fresh = await freshDatabase()
  database = fresh.database
  close = fresh.close
  url = fresh.url
  systemId = (await enrolled(scope(), randomBytes(32), 'heron')).systemId
  const host = {
    name: 'gate',
    secretId: null,
    siteId: null,
    agentAddress: 'http://a',
    operatingSystem: 'os',
    initiators: ['iqn.x'],
    groupName: 'ct-scans',
  }
  await enrolHost(scope(), host, 'key')
  await storeInventory(database, systemId, inventory, await nextReading(scope()))
})
afterAll(() => close())

test.each(kindList.map(kind => [kind.name, kind] as const))(
  'the table of %s has the columns that its kind says',
  async (name, kind) => {
    const found = await rows<{ readonly name: string; readonly type: string; readonly nullable: string }>(
      scope(),
      `select column_name as name, udt_name as type, is_nullable as nullable from information_schema.columns where table_name = $1`,
      [tableOf(name)],
    )
    const types: Readonly<Record<string, string>> = { int4: 'int', float8: 'double precision', bool: 'boolean' }
    const kept = new Map(found.map(each => [each.name, [types[each.type] ?? each.type, each.nullable === 'YES']]))
    for (const { field, type, isNullable } of columnsOf(kind)) {
      expect([field, ...(kept.get(columnOf(field)) ?? [])]).toEqual([field, columnTypes[type], isNullable])
    }
  },
)

test('what a kind names of its own fields, it has', () => {
  for (const kind of kindList) {
    const fields = new Set(fieldsOf(kind).map(({ field }) => field))
    const named = [
      ...Object.keys(kind.references),
      ...kind.moving,
      ...kind.ours,
      ...kind.order,
      ...(kind.search?.by ?? []),
      ...(kind.list?.columns.map(each => each.field) ?? []),
    ]
    expect(named.filter(field => !fields.has(field))).toEqual([])
  }
})

test('a kind refers to those before it; what refers in a ring is judged when all has been written', async () => {
  const order = kindList.map(({ name }) => name)
  const ahead = kindList.flatMap(({ name, references }) =>
    (Object.entries(references) as [string, KindName][])
      .filter(([, of]) => of !== name && order.indexOf(of) > order.indexOf(name))
      .map(([field]) => `${name}.${field}`),
  )
  const late = await rows<{ readonly name: string }>(
    scope(),
    `select conrelid::regclass || '.' || attname as name from pg_constraint join pg_attribute on attrelid = conrelid and attnum = conkey[1]
     where contype = 'f' and condeferred order by 1`,
  )
  expect(ahead).toEqual(['volumes.cloneOfId'])
  expect(late.map(({ name }) => name)).toEqual(expect.arrayContaining(['volumes.clone_of_id']))
})

test('lists answer what the contract says of each kind, byte for byte', async () => {
  const ajv = new Ajv({ strict: false, formats })
  const counts: Partial<Record<KindName, number>> = {}
  for (const kind of kindList) {
    const { items, total } = await objectList(scope(), kind.name)
    const isKind = ajv.compile(kind.schema)
    for (const item of items) expect([isKind(JSON.parse(toJson(item))), isKind.errors]).toEqual([true, null])
    counts[kind.name] = total
  }
  expect(counts).toMatchObject({
    systems: 1,
    enclosures: 1,
    controllers: 1,
    ports: 3,
    drives: 3,
    volumes: 3,
    mappings: 1,
    hosts: 1,
  })
})

test('bytes beyond 2^53 keep every digit', async () => {
  const drives = await objects(scope(), 'drives', { order: [['capacityBytes', 'ASC']] })
  expect(drives.map(each => each.capacityBytes)).toEqual([9007199254740994n, 9007199254740995n, 9007199254740996n])
})

test('pages of a list hold each object once, in the order asked for, and say how many there are', async () => {
  const pages = await Promise.all(
    [0, 1, 2].map(offset => objectList(scope(), 'ports', { sort: 'isUp', offset, limit: 1 })),
  )
  expect(pages.map(page => page.total)).toEqual([3, 3, 3])
  expect(new Set(pages.flatMap(page => page.items.map(each => each.id))).size).toBe(3)
  const down = await objectList(scope(), 'ports', { sort: 'name', isDescending: true })
  expect(down.items.map(each => each.name)).toEqual(['port 10', 'port 2', 'port 1'])
  expect(down.names).toEqual({ [systemId]: 'heron' })
  expect((await objectList(scope(), 'drives', { sort: 'poolId' })).names).toMatchObject({ [systemId]: 'heron' })
})

test.each([
  ['10.0.0.1', 2],
  ['PORT 2', 1],
  ['%', 0],
  ['_', 0],
  ["'; drop table ports;--", 0],
  ['\u0000', 3],
  ['\ud800', 0],
  ['\\', 0],
])('the filter %j finds %d ports', async (filter, count) => {
  expect((await objectList(scope(), 'ports', { filter })).total).toBe(count)
})

test('within another object only its own stand', async () => {
  const [pool] = await objects(scope(), 'pools')
  expect((await objectList(scope(), 'drives', { within: { poolId: pool?.id ?? '' } })).total).toBe(3)
  expect((await objectList(scope(), 'drives', { within: { poolId: systemId } })).total).toBe(0)
})

test('a host is found by what stands in its list of initiators', async () => {
  expect((await objectList(scope(), 'hosts', { filter: 'IQN.X' })).items.map(each => each.name)).toEqual(['gate'])
  expect((await search(scope(), 'iqn.x')).map(hit => hit.kind)).toEqual(['host'])
  expect((await search(scope(), '10.0.0.10')).map(hit => [hit.kind, hit.name, hit.systemId])).toEqual([
    ['port', 'port 10', systemId],
  ])
})

test('what moves counts up no revision; everything else does', async () => {
  const revision = async () => (await objects(scope(), 'volumes', { where: { name: 'a_1' } }))[0]?.revision
  const store = async (more: object) =>
    storeInventory(
      database,
      systemId,
      { ...inventory, volumes: inventory.volumes.map(each => (each.name === 'a_1' ? { ...each, ...more } : each)) },
      await nextReading(scope()),
    )
  const before = await revision()
  for (const moving of objectKinds.volumes.moving) {
    await store({ [moving]: 77n })
    expect(await revision()).toBe(before)
  }
  await store({ sizeBytes: 5n })
  expect(await revision()).toBe((before ?? 0) + 1)
  await store({})
})

test('a kind that says otherwise what moves has its trigger altered at the next start, and no other', async () => {
  const silent = async () =>
    rows<{ readonly table: string; readonly silent: string; readonly oid: number }>(
      scope(),
      `select relname as table, convert_from(substring(tgargs for length(tgargs) - 1), 'UTF8') as silent, pg_trigger.oid::int as oid
       from pg_trigger join pg_class on pg_class.oid = tgrelid where tgname = 'revision' order by relname`,
    )
  const before = await silent()
  expect(before.find(each => each.table === 'volumes')?.silent).toBe('{lost_bytes,revision,written_bytes}')
  expect(before.find(each => each.table === 'systems')?.silent).toContain('sealed_password')
  expect(before).toHaveLength(kindList.length)
  await run(
    scope(),
    "create or replace trigger revision before update on ports for each row execute function bump_revision('{revision,name}')",
  )
  await migrate(database, url)
  expect((await silent()).map(each => [each.table, each.silent])).toEqual(before.map(each => [each.table, each.silent]))
})

test('what a system states of an object that it does not have is told, and the rest is kept', async () => {
  const { notKept } = await storeInventory(
    database,
    systemId,
    {
      ...inventory,
      volumes: [
        ...inventory.volumes,
        {
          ...(inventory.volumes[0] as (typeof inventory.volumes)[0]),
          locator: '/v/9',
          naa: '9'.repeat(32),
          poolLocator: '/gone',
        },
      ],
      mappings: [
        { locator: '/m/9', volumeLocator: '/v/9', snapshotLocator: null, groupName: 'g', lun: 3, initiators: [] },
      ],
    },
    await nextReading(scope()),
  )
  expect(notKept).toEqual([
    { locator: '/v/9', why: 'It names no pool that the system has.' },
    { locator: '/m/9', why: 'It names no volume that the system has.' },
  ])
  expect((await objectList(scope(), 'volumes')).total).toBe(3)
})

test('an object belongs to what it refers to, and is found by id also when it is missing', async () => {
  const [drive] = await objects(scope(), 'drives')
  const found = await modelOf(database, 'drives').findByPk(drive?.id ?? '', { include: ['pool', 'system'] })
  expect(found?.toJSON()).toMatchObject({ pool: { name: 'pool' }, system: { name: 'heron' } })
  await run(scope(), 'update drives set missing_since = now() where id = $1', [drive?.id])
  expect((await objects(scope(), 'drives')).length).toBe(2)
  expect((await object(scope(), 'drives', drive?.id ?? ''))?.serial).toBe(drive?.serial)
})
