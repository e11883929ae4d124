import { redfish } from '.'
import {
  collection,
  drive,
  link,
  lying,
  never,
  pool,
  reach,
  root,
  serviceRoot,
  storage,
  type Body,
  type Page,
  volume,
} from './testing/lyingSystem'

const { identify } = redfish

test('a system that cannot expand and has no pages is read link by link, and signed out of', async () => {
  const { address, heard } = await lying({})
  const system = reach(address)
  const found = await system.inventory()
  expect([found.drives.length, found.pools.length, found.volumes.length, found.skipped]).toEqual([1, 1, 1, []])
  expect(heard.some(each => each.url.includes('$expand'))).toBe(false)
  await system.signOut()
  expect(heard.at(-1)).toMatchObject({ method: 'DELETE', url: `${root}/SessionService/Sessions/1` })
})

test('one that says it can expand and then refuses is read without', async () => {
  const refuses: Page = (_, response) => {
    response.statusCode = 501
    return { error: { message: 'Not implemented.' } }
  }
  const { address } = await lying({
    [`GET ${root}`]: { ...serviceRoot, ProtocolFeaturesSupported: { ExpandQuery: { NoLinks: true } } },
    [`GET ${root}/Storage?$expand=.`]: refuses,
  })
  expect((await reach(address).inventory()).volumes).toHaveLength(1)
})

const inParts = { ...serviceRoot, ProtocolFeaturesSupported: { ExpandQuery: { NoLinks: true }, TopSkipQuery: true } }
const manyVolumes = Array.from({ length: 2300 }, (_, index) =>
  volume(index, { Identifiers: [{ DurableName: `6${`${index}`.padStart(31, '0')}`, DurableNameFormat: 'NAA' }] }),
)
/** A part of the volumes, as the address asks for it. @param skips whether it heeds what is to be left out */
const partOf =
  (skips: boolean, more: Body = {}): Page =>
  ({ url }) => {
    const { searchParams } = new URL(url ?? '', 'http://here.invalid')
    const from = skips ? Number(searchParams.get('$skip') ?? 0) : 0
    const members = manyVolumes.slice(from, from + Number(searchParams.get('$top') ?? manyVolumes.length))
    return { ...collection('Storage/1/Volumes', members), ...more }
  }

test.each([
  ['says how many there are', { 'Members@odata.count': manyVolumes.length }],
  ['does not say how many there are', {}],
])('a system that can give a part, and %s, is read part by part', async (_, more) => {
  const pages = { [`GET ${root}`]: inParts, [`GET ${root}/Storage/1/Volumes`]: partOf(true, more) }
  const { address, heard } = await lying(pages)
  const found = await reach(address).inventory()
  expect([found.volumes.length, new Set(found.volumes.map(each => each.locator)).size]).toEqual([2300, 2300])
  const asked = heard.filter(each => each.url.startsWith(`${root}/Storage/1/Volumes?`)).map(each => each.url)
  expect(asked.map(each => each.split('?')[1])).toEqual([
    '$expand=.&$top=1000',
    '$expand=.&$top=1000&$skip=1000',
    '$expand=.&$top=1000&$skip=2000',
  ])
})

test('one that says it can give a part and always gives the first is no way to read for ever', async () => {
  const { address } = await lying({ [`GET ${root}`]: inParts, [`GET ${root}/Storage/1/Volumes`]: partOf(false) })
  await expect(reach(address).inventory()).rejects.toMatchObject({ code: 'connection.unreadable-answer' })
})

test.each([
  [
    'a link',
    { [`GET ${root}/Storage`]: collection('Storage', [{ '@odata.id': 'http://127.0.0.1:9/redfish/v1/Storage/1' }]) },
  ],
  ['a link without a scheme', { [`GET ${root}/Storage`]: collection('Storage', [{ '@odata.id': '//127.0.0.1:9/x' }]) }],
  [
    'a next page',
    {
      [`GET ${root}/Storage/1/Volumes`]: {
        ...collection('Storage/1/Volumes', [link('Storage/1/Volumes/1')]),
        'Members@odata.nextLink': 'http://127.0.0.1:9/more',
      },
    },
  ],
  [
    'the place to sign in',
    { [`GET ${root}`]: { ...serviceRoot, Links: { Sessions: { '@odata.id': 'http://127.0.0.1:9/sessions' } } } },
  ],
])('%s that leads away from the system is not followed', async (_, pages) => {
  const { address } = await lying(pages)
  await expect(reach(address).inventory()).rejects.toMatchObject({ code: 'connection.left-origin' })
})

test('pages that lead round, or on and on without adding anything, end at once', async () => {
  const page = (next: string) => ({
    ...collection('Storage/1/Volumes', [link('Storage/1/Volumes/1')]),
    'Members@odata.nextLink': next,
  })
  const ring = await lying({ [`GET ${root}/Storage/1/Volumes`]: page(`${root}/Storage/1/Volumes`) })
  await expect(reach(ring.address).inventory()).rejects.toMatchObject({ code: 'connection.unreadable-answer' })
  let pages = 0
  const endless = await lying({
    [`GET ${root}/Storage/1/Volumes`]: () => page(`${root}/Storage/1/Volumes?page=${(pages += 1)}`),
  })
  await expect(reach(endless.address).inventory()).rejects.toMatchObject({
    why: expect.stringContaining('without an end'),
  })
  expect(pages).toBeLessThan(4)
})

test('a body without an end is cut off', async () => {
  const { address } = await lying({
    [`GET ${root}`]: (_, response) => {
      response.writeHead(200, { 'Content-Type': 'application/json' })
      const part = Buffer.alloc(100_000, 32)
      const drip = setInterval(() => (response.destroyed ? clearInterval(drip) : response.write(part)), 1)
      return undefined
    },
  })
  await expect(identify({ address }, never)).rejects.toMatchObject({ why: expect.stringContaining('larger than') })
})

test.each([
  ['a drive of no capacity', drive(2, { CapacityBytes: null })],
  ['a drive of an unknown kind', drive(2, { MediaType: 'Crystal' })],
  ['a drive with a NUL in its name', drive(2, { Name: 'x\u0000y' })],
  ['a drive with half a character', drive(2, { Model: '\ud800' })],
  ['a drive without a serial number', drive(2, { SerialNumber: '' })],
  ['a drive that is a list', []],
  ['a drive with left-over data in an unknown form', drive(2, { Oem: { Mirefield: { LeftOver: 'yes' } } })],
])('%s is left out and told; the system goes on answering', async (_, bad) => {
  const members = [link('Chassis/1/Drives/1'), link('Chassis/1/Drives/2')]
  const { address } = await lying({
    [`GET ${root}/Chassis/1/Drives`]: collection('Chassis/1/Drives', members),
    [`GET ${root}/Chassis/1/Drives/2`]: bad as Body,
  })
  const found = await reach(address).inventory()
  expect(found.drives.map(each => each.serial)).toEqual(['SN1'])
  expect(found.skipped.map(each => each.locator)).toEqual([`${root}/Chassis/1/Drives/2`])
})

test('what a maker that nobody knows states of its own is passed over', async () => {
  const { address } = await lying({
    [`GET ${root}/Chassis/1/Drives/1`]: drive(1, { Oem: { Elsewhere: { LeftOver: 'yes' } } }) as Body,
  })
  const found = await reach(address).inventory()
  expect(found.drives).toMatchObject([{ serial: 'SN1', leftOver: null, isBoot: false }])
  expect(found.skipped).toEqual([])
})

test('a member that stands twice is taken once, and one that is gone meanwhile is no fault', async () => {
  const members = [1, 1, 7].map(number => link(`Storage/1/Volumes/${number}`))
  const { address } = await lying({ [`GET ${root}/Storage/1/Volumes`]: collection('Storage/1/Volumes', members) })
  const found = await reach(address).inventory()
  expect([found.volumes.length, found.skipped.length]).toEqual([1, 1])
})

test('an unknown layout is unknown, and never taken for one without parity', async () => {
  const { address } = await lying({
    [`GET ${root}/Storage/1/StoragePools/1`]: { ...pool, SupportedRAIDTypes: ['SpiralCode9'] },
  })
  expect((await reach(address).inventory()).pools[0]?.scheme).toEqual({ kind: 'unknown', stated: 'SpiralCode9' })
  const silent = await lying({ [`GET ${root}/Storage/1/StoragePools/1`]: { ...pool, SupportedRAIDTypes: null } })
  expect((await reach(silent.address).inventory()).pools[0]?.scheme).toMatchObject({ kind: 'unknown' })
})

test('limits come from makers that have words for them, and are asked of no other', async () => {
  const at = `GET ${root}/Storage/1/Volumes/1`
  const ceiling = (body: unknown) => volume(1, { Oem: { Ferrow: { Ceiling: body } } })
  const limited = await lying({ [at]: ceiling({ RequestsPerSecond: 500, BytesPerSecond: null }) })
  expect((await reach(limited.address).inventory()).volumes[0]?.limits).toEqual({
    requestsPerSecond: 500,
    bytesPerSecond: null,
  })
  const { address, heard } = await lying({ [`GET ${root}`]: { ...serviceRoot, Vendor: 'Mirefield' } })
  const system = reach(address)
  expect((await system.inventory()).volumes[0]?.limits).toBeNull()
  const limits = { requestsPerSecond: 10, bytesPerSecond: null }
  const asking = (await system.of('volumes')).limit(`${root}/Storage/1/Volumes/1`, '6'.padEnd(32, '0'), limits)
  await expect(asking).rejects.toMatchObject({ code: 'system.not-offered' })
  expect(heard.filter(each => each.method === 'PATCH')).toEqual([])
  for (const body of ['much', { RequestsPerSecond: -1, BytesPerSecond: null }, { RequestsPerSecond: 1e300 }]) {
    const bad = await lying({ [at]: ceiling(body) })
    const { volumes, skipped } = await reach(bad.address).inventory()
    expect([volumes, skipped.length]).toEqual([[], 1])
  }
})

test('links stand where objects may stand, and drives at their storage', async () => {
  const { address } = await lying({
    [`GET ${root}/Storage/1`]: { ...storage, Drives: [link('Storage/1/Drives/9')] },
    [`GET ${root}/Storage/1/Drives/9`]: {
      ...drive(9),
      ...link('Storage/1/Drives/9'),
      Links: { Chassis: link('Chassis/1') },
    },
    [`GET ${root}/Chassis/1`]: { ...link('Chassis/1'), Name: 'Enclosure' },
    [`GET ${root}/Storage/1/StoragePools/1`]: { ...pool, CapacitySources: [link('Sources/1')] },
    [`GET ${root}/Sources/1`]: { ...link('Sources/1'), ProvidingDrives: link('Sources/1/ProvidingDrives') },
    [`GET ${root}/Sources/1/ProvidingDrives`]: collection('Sources/1/ProvidingDrives', [link('Storage/1/Drives/9')]),
    [`GET ${root}/Storage/1/Volumes/1`]: volume(1, { CapacitySources: [{ ProvidingPools: link('Sources/2') }] }),
    [`GET ${root}/Sources/2`]: collection('Sources/2', [link('Storage/1/StoragePools/1')]),
  })
  const found = await reach(address).inventory()
  expect(found.drives).toMatchObject([{ serial: 'SN9', enclosureLocator: `${root}/Chassis/1`, groupIndex: 0 }])
  expect(found.pools[0]?.groupSizes).toEqual([1])
  expect(found.volumes[0]?.poolLocator).toBe(`${root}/Storage/1/StoragePools/1`)
})

test('a destructive call names what it expects, and touches nothing else that stands there', async () => {
  const { address, heard } = await lying({ [`DELETE ${root}/Storage/1/Volumes/1`]: {} })
  const system = reach(address)
  const destroyed = () => heard.filter(each => ['DELETE', 'PATCH'].includes(each.method))
  const locator = `${root}/Storage/1/Volumes/1`
  for (const attempt of [
    async () => (await system.of('volumes')).remove(locator, 'f'.repeat(32)),
    async () => (await system.of('volumes')).enlarge(locator, 'f'.repeat(32), 10n ** 12n),
    async () => (await system.of('pools')).remove(`${root}/Storage/1/StoragePools/1`, 'another pool'),
    async () => (await system.of('drives')).erase(`${root}/Chassis/1/Drives/1`, 'SN2', true),
  ])
    await expect(attempt()).rejects.toMatchObject({ code: 'system.other-object' })
  expect(destroyed()).toEqual([])
  await (await system.of('volumes')).remove(locator, '60000000000000000000000000000001')
  expect(destroyed()).toHaveLength(1)
})

test('a task monitor is asked as well as a task; one that has vanished says nothing', async () => {
  let asked = 0
  const { address } = await lying({
    [`GET ${root}/monitor`]: (_, response) => {
      asked += 1
      response.statusCode = asked < 3 ? 202 : 200
      return asked < 3 ? {} : volume(1)
    },
    [`GET ${root}/refused`]: (_, response) => {
      response.statusCode = 409
      return { error: { message: 'It is full.' } }
    },
    [`GET ${root}/task`]: {
      ...link('task'),
      TaskState: 'Completed',
      StartTime: '2026-01-01T00:00:00Z',
      EndTime: '2026-01-01T00:01:30Z',
    },
  })
  const system = reach(address)
  expect([
    (await (await system.of('tasks')).at(`${root}/monitor`)).state,
    (await (await system.of('tasks')).at(`${root}/monitor`)).state,
  ]).toEqual(['running', 'running'])
  expect((await (await system.of('tasks')).at(`${root}/monitor`)).state).toBe('done')
  expect(await (await system.of('tasks')).at(`${root}/task`)).toMatchObject({
    state: 'done',
    endedAt: '2026-01-01T00:01:30.000Z',
  })
  expect((await (await system.of('tasks')).at(`${root}/no-longer`)).state).toBe('gone')
  expect(await (await system.of('tasks')).at(`${root}/refused`)).toMatchObject({ state: 'failed', why: 'It is full.' })
})

test('a resource that a system has not is told with its reason, before anything is asked of it', async () => {
  const { address, heard } = await lying({})
  const system = reach(address)
  await system.of('volumes')
  const asked = heard.length
  for (const name of ['nodes', 'clusters', 'spreadPools', 'interfaces', 'switchPorts'] as const)
    await expect(system.of(name)).rejects.toMatchObject({ code: 'system.not-offered', resource: name })
  expect(heard).toHaveLength(asked)
  const mappings = await system.of('mappings')
  await expect(mappings.targets()).rejects.toMatchObject({ code: 'system.not-offered', resource: 'mappings' })
})
