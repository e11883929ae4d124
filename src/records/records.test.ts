import { randomBytes } from 'node:crypto'
import type { Sequelize } from 'sequelize'
import type { Inventory } from '@/ports'
import {
  addAdministrator,
  addFirstAdministrator,
  administratorOf,
  bearerOf,
  firstCode,
  makeToken,
  noteAttempt,
  openSession,
  recentFailures,
  removeAdministrator,
  revokeToken,
  tokensOf,
} from './access'
import { inTransaction, rows } from './database'
import { enrolSystem, estateClock, keepProbe, noteClock, storeInventory, systemAccess } from './inventory'
import { search, systemPage, volumeList } from './queries'
import { freshDatabase } from './testing'

const key = randomBytes(32)
let records: Awaited<ReturnType<typeof freshDatabase>>
let database: Sequelize
let systemId: string

const drive = (bay: number, more: object = {}) => ({
  locator: `/d/${bay}`,
  enclosureLocator: '/e',
  poolLocator: '/p',
  bay,
  name: `drive ${bay}`,
  media: 'SSD' as const,
  protocol: 'NVMe' as const,
  capacityBytes: 10n ** 13n,
  model: 'm',
  serial: `SER${bay}`,
  wwn: null,
  firmware: null,
  state: 'fine' as const,
  role: 'data' as const,
  groupIndex: 0,
  rotationSpeedRpm: null,
  powerOnHours: 5,
  wearRatio: 0.1,
  nodeLocator: null,
  isBoot: false,
  isLit: false,
  driveWritesPerDay: null,
  leftOver: null,
  bank: null,
  ...more,
})
const inventory = (more: Partial<Inventory> = {}): Inventory => ({
  identity: { uuid: 'u', name: 'n', maker: 'm', model: 'x', serial: 's', firmware: '1', redfishVersion: '1' },
  controllers: [],
  enclosures: [{ locator: '/e', name: 'Enclosure', bayCount: 24, baysPerRow: 24 }],
  drives: [drive(1), drive(2), drive(3)],
  ports: [],
  pools: [
    {
      locator: '/p',
      name: 'pool',
      scheme: { kind: 'parity', parityDrives: 1 },
      failureDomain: null,
      rebuildReserveBytes: 0n,
      driveKind: { media: 'SSD', protocol: 'NVMe' },
      groupSizes: [3],
      spareCount: 0,
      state: 'fine',
      rawBytes: 3n * 10n ** 13n,
      usableBytes: 2n * 10n ** 13n,
      writtenBytes: 5n,
      provisionedBytes: 9007199254740993n,
      metadataBytes: 0n,
      snapshotReserveBytes: 0n,
      redundancyBytes: 10n ** 13n,
      strandedBytes: 0n,
      spareBytes: 0n,
    },
  ],
  volumes: ['a_1', 'a%2', 'b-3'].map((name, index) => ({
    locator: `/v/${index}`,
    poolLocator: '/p',
    name,
    naa: `6${index}`.padEnd(32, '0'),
    sizeBytes: BigInt(index + 1) * 10n ** 12n,
    isThin: true,
    writtenBytes: 1n,
    lostBytes: 0n,
  })),
  mappings: [],
  nodes: [],
  nodePorts: [],
  switches: [],
  switchPorts: [],
  clusterName: null,
  works: [],
  sensors: [],
  ...more,
})

beforeAll(async () => {
  records = await freshDatabase()
  database = records.database
  const found = {
    address: 'http://a',
    isEncrypted: false,
    certificateFingerprint: null,
    certificateTrouble: null,
    uuid: 'u',
    maker: 'm',
    model: 'x',
    serial: 's',
    firmware: '1',
    redfishVersion: '1',
    controllers: 0,
    enclosures: 1,
    drives: [],
    pools: 1,
    volumes: 3,
  }
  const probeId = await keepProbe(
    { database },
    key,
    found,
    { address: 'http://a', acceptedFingerprint: null, userName: 'admin', password: 'open sesame' },
    'tester',
  )
  systemId = await enrolSystem({ database }, key, probeId, 'array', null, 'key-1')
  expect(await enrolSystem({ database }, key, probeId, 'array', null, 'key-1')).toBe(systemId)
  await storeInventory(database, systemId, inventory())
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
  await storeInventory(database, systemId, inventory())
  expect((await revisions()).map(each => each.revision)).toEqual([1, 1, 1])
  await storeInventory(
    database,
    systemId,
    inventory({ drives: [drive(1, { powerOnHours: 6 }), drive(2, { state: 'failing' })] }),
  )
  expect(await revisions()).toEqual([
    { name: 'drive 1', revision: 1 },
    { name: 'drive 2', revision: 2 },
  ])
  const page = await systemPage({ database }, systemId)
  expect(page?.drives[0]?.powerOnHours).toBe(6)
  expect(page?.pools[0]?.provisionedBytes).toBe(9007199254740993n)
})

test('volumes are found by literal text, sorted and paged at the server', async () => {
  const names = async (question: Parameters<typeof volumeList>[1]) =>
    (await volumeList({ database }, question)).lines.map(line => line.name)
  expect(await names({ filter: 'a_' })).toEqual(['a_1'])
  expect(await names({ filter: '%' })).toEqual(['a%2'])
  expect(await names({ filter: "'; drop table volumes; --" })).toEqual([])
  expect(await names({ sort: 'size', isDescending: true, limit: 2 })).toEqual(['b-3', 'a%2'])
  expect(await volumeList({ database }, { offset: 2, limit: 1 })).toMatchObject({
    total: 3,
    lines: [{ name: 'b-3', sizeBytes: '3000000000000' }],
  })
  expect((await search({ database }, 'SER2')).map(hit => hit.kind)).toEqual(['drive'])
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
  const session = await openSession({ database }, other)
  const token = await makeToken({ database }, other, 'script')
  expect(await administratorOf({ database }, session)).toMatchObject({ name: 'other' })
  expect(await bearerOf({ database }, token)).toMatchObject({ name: 'other' })
  expect(JSON.stringify(await rows({ database }, 'select * from api_tokens'))).not.toContain(token)
  expect(await revokeToken({ database }, keeper, (await tokensOf({ database }, other))[0]?.id ?? '')).toBe(false)
  expect(await inTransaction(database, scope => removeAdministrator(scope, other))).toBe(true)
  expect(await administratorOf({ database }, session)).toBeUndefined()
  expect(await bearerOf({ database }, token)).toBeUndefined()
})

test('failures are counted since the last success', async () => {
  for (const succeeded of [false, true, false, false]) await noteAttempt({ database }, 'someone', 'here', succeeded)
  expect(await recentFailures({ database }, 'someone')).toMatchObject({ count: 2 })
  expect(await recentFailures({ database }, 'stranger')).toMatchObject({ count: 0, secondsAgo: Infinity })
})

test("the estate keeps the wall's time until its systems keep another", async () => {
  expect((await estateClock({ database })).rate).toBe(1)
  const wall = Date.parse('2026-03-01T10:00:00Z')
  await noteClock({ database }, systemId, new Date(wall), new Date(wall + 1e9))
  await noteClock({ database }, systemId, new Date(wall + 2000), new Date(wall + 1e9 + 120_000))
  expect((await estateClock({ database })).rate).toBeCloseTo(60, 5)
})
