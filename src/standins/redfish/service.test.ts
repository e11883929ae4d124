import { testFleet } from '../testing/serviceOf'

const root = '/redfish/v1'
let bench: Awaited<ReturnType<typeof testFleet>>
beforeAll(async () => {
  bench = await testFleet()
})
afterAll(() => bench.stop())

/** All places that a body leads to. */
function links(value: unknown): string[] {
  if (Array.isArray(value)) return value.flatMap(links)
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([name, each]: [string, unknown]) =>
    (name === '@odata.id' || name === 'target' || name === 'Uri') && typeof each === 'string' && !each.includes('#')
      ? [each]
      : links(each),
  )
}
const extended = (body: Readonly<Record<string, unknown>>) =>
  (body['error'] as { '@Message.ExtendedInfo': Record<string, unknown>[] })['@Message.ExtendedInfo'][0]

test.each(['heron', 'godwit'])('every link of %s leads somewhere, and every resource says what it is', async system => {
  const types = new Map<string, string>()
  const seen = new Set<string>()
  const asked: string[] = []
  const queue = [`${root}/`]
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    if (seen.has(at)) continue
    seen.add(at)
    if (at.includes('/Actions/')) {
      asked.push(at)
      continue
    }
    const { status, body } = await bench.ask(system, 'GET', at)
    expect([at, status]).toEqual([at, 200])
    expect([at, body['@odata.id']]).toEqual([at, at])
    expect(body['@odata.type']).toMatch(/^#\w+(\.v\d+_\d+_\d+)?\.\w+$/)
    types.set(String(body['@odata.type']), at)
    queue.push(...links(body))
  }
  expect(types.size).toBeGreaterThan(system === 'heron' ? 20 : 28)
  for (const target of asked) {
    const refused = await bench.ask(system, 'GET', target)
    expect([target, refused.status, refused.headers.get('allow')]).toEqual([target, 405, 'POST'])
  }
  const { text } = await bench.ask(system, 'GET', `${root}/$metadata`)
  for (const type of types.keys())
    if (/\.v\d/.test(type)) expect(text).toContain(`Namespace="${type.slice(1).replace(/\.\w+$/, '')}"`)
})

test('what is not there is 404, also below something that is of another parent', async () => {
  const [first, second] = bench.fleet.row.array.model.enclosures
  const drive = bench.fleet.row.array.all('drives').find(each => each.enclosureId === first?.id)
  for (const path of [
    'Nothing',
    'Chassis/none/Drives',
    'Storage/2',
    'Storage/1/Volumes/none',
    `Chassis/${second?.id ?? ''}/Drives/${drive?.id ?? ''}`,
    `Systems/${second?.id ?? ''}/EthernetInterfaces/${first?.id ?? ''}-p1`,
    'Storage/1/Controllers/Z/Ports',
    'TaskService/TaskMonitors/none',
  ]) {
    const { status, body } = await bench.ask('godwit', 'GET', `${root}/${path}`)
    expect([path, status]).toEqual([path, 404])
    expect(extended(body)).toMatchObject({
      '@odata.type': '#Message.v1_2_1.Message',
      MessageId: 'Base.1.18.ResourceMissingAtURI',
      MessageArgs: [expect.stringContaining(path.split('/').at(-1) ?? '')],
    })
  }
})

test('a method that a place has not is 405 with those that it has', async () => {
  const allowed = async (method: string, path: string) => {
    const { status, headers } = await bench.ask('heron', method, `${root}/${path}`)
    expect(status).toBe(405)
    return headers.get('allow')
  }
  expect(await allowed('DELETE', 'Chassis')).toBe('GET, HEAD')
  expect(await allowed('PUT', 'Storage/1/Volumes')).toBe('GET, HEAD, POST')
  expect(await allowed('POST', `Storage/1/StoragePools/x`)).toBe('GET, HEAD, DELETE')
  expect(await allowed('PATCH', '')).toBe('GET, HEAD')
})

test('whoever has not signed in sees the root, the metadata and the service document, and is told how to sign in', async () => {
  const stranger = { headers: { Authorization: '' } }
  for (const path of ['', '/', '/odata', '/$metadata'])
    expect((await bench.ask('heron', 'GET', `${root}${path}`, stranger)).status).toBe(200)
  for (const path of ['/Chassis', '/nothing', '/odata/more']) {
    const { status, headers } = await bench.ask('heron', 'GET', `${root}${path}`, stranger)
    expect([path, status, headers.get('www-authenticate')]).toEqual([path, 401, expect.stringMatching(/^Basic realm=/)])
  }
  for (const given of ['Basic', 'Basic !!!', `Basic ${Buffer.from('admin:wrong').toString('base64')}`, 'Bearer x'])
    expect((await bench.ask('heron', 'GET', `${root}/Chassis`, { headers: { Authorization: given } })).status).toBe(401)
  expect((await bench.ask('heron', 'PATCH', root, { ...stranger, body: {} })).status).toBe(401)
})

test('parameters: what is offered works, what is not is 501, and a bad value 400', async () => {
  const get = (path: string) => bench.ask('heron', 'GET', `${root}/${path}`)
  const picked = await get('Chassis?$expand=.&$select=Name,Status/Health')
  expect(Object.keys((picked.body['Members'] as object[])[0] ?? {})).toEqual([
    '@odata.id',
    '@odata.type',
    'Name',
    'Status',
  ])
  expect((picked.body['Members'] as object[])[0]).toMatchObject({ Status: { Health: 'OK' } })
  expect((await get('Storage?only')).body).toMatchObject({ '@odata.type': '#Storage.v1_17_0.Storage' })
  expect((await get('Chassis?$top=0')).body).toMatchObject({ Members: [] })
  expect((await get('Chassis?unknown=1')).status).toBe(200)
  for (const [query, status] of [
    ['$filter=Name eq 1', 501],
    ['$orderby=Name', 501],
    ['$expand=*', 501],
    ['$top=-1', 400],
    ['$skip=x', 400],
    ['$top=1&$top=2', 400],
    ['only&$top=1', 400],
  ] as const) {
    const answer = await get(`Chassis?${query}`)
    expect([query, answer.status]).toEqual([query, status])
    expect(extended(answer.body)?.['MessageId']).toMatch(/^Base\.1\.18\.Query/)
  }
  expect((await get('Storage/1?$top=1')).status).toBe(501)
})

test('a change names what it expects to find, and is refused where that has changed; bad bodies name the fault', async () => {
  const [pool] = (bench.fleet.arrays.find(each => each.model.name === 'bittern')?.all('pools') ?? []).filter(
    each => each.isReady,
  )
  const made = await bench.ask('bittern', 'POST', `${root}/Storage/1/Volumes`, {
    body: {
      Name: 'tagged',
      CapacityBytes: 2 ** 30,
      CapacitySources: [
        { ProvidingPools: { Members: [{ '@odata.id': `${root}/Storage/1/StoragePools/${pool?.id ?? ''}` }] } },
      ],
    },
  })
  expect(made.status).toBe(201)
  const path = made.headers.get('location') ?? ''
  const tag = (await bench.ask('bittern', 'GET', path)).headers.get('etag') ?? ''
  const rename = (name: string, etag: string) =>
    bench.ask('bittern', 'PATCH', path, { body: { DisplayName: name }, headers: { 'If-Match': etag } })
  expect(await rename('tagged-2', tag)).toMatchObject({ status: 200, body: { Name: 'tagged-2' } })
  expect((await rename('tagged-3', tag)).status).toBe(412)
  expect((await bench.ask('bittern', 'DELETE', path, { headers: { 'If-Match': tag } })).status).toBe(412)
  const faults: [unknown, string, string][] = [
    [{ Capacity: 1 }, 'PropertyUnknown', '/Capacity'],
    [{ CapacityBytes: '1' }, 'PropertyValueTypeError', '/CapacityBytes'],
    ['{"Name"', 'MalformedJSON', ''],
  ]
  for (const [body, id, at] of faults) {
    const refused = await bench.ask('bittern', 'PATCH', path, { body })
    expect([refused.status, extended(refused.body)?.['MessageId']]).toEqual([400, `Base.1.18.${id}`])
    if (at !== '') expect(extended(refused.body)).toMatchObject({ MessageArgs: [at], RelatedProperties: [`#${at}`] })
  }
  expect((await bench.ask('bittern', 'DELETE', path)).status).toBe(204)
  expect((await bench.ask('bittern', 'GET', path)).status).toBe(404)
})

test('a task monitor answers 202 until the work is done, then as the request would have', async () => {
  const array = bench.fleet.row.array
  const drive = array.all('drives').find(each => each.role === 'unassigned' && !each.isBoot)
  const target = `${root}/Chassis/${drive?.enclosureId ?? ''}/Drives/${drive?.id ?? ''}/Actions/Drive.SecureErase`
  const begun = await bench.ask('godwit', 'POST', target, { body: { SanitizationType: 'BlockErase' } })
  expect([begun.status, begun.body['TaskState']]).toEqual([202, 'Running'])
  const monitor = begun.headers.get('location') ?? ''
  expect(monitor).toBe(begun.body['TaskMonitor'])
  expect((await bench.ask('godwit', 'GET', monitor)).status).toBe(202)
  bench.fleet.clock.step(100_000)
  let answer = await bench.ask('godwit', 'GET', monitor)
  for (let tries = 0; answer.status === 202 && tries < 50; tries += 1) {
    await new Promise(later => setTimeout(later, 100))
    answer = await bench.ask('godwit', 'GET', monitor)
  }
  expect([answer.status, answer.body['Id']]).toEqual([201, drive?.id])
})

test('a node is reset by its action: it is away, and comes back', async () => {
  const path = `${root}/Systems/godwit-4`
  const reset = (type: string) =>
    bench.ask('godwit', 'POST', `${path}/Actions/ComputerSystem.Reset`, { body: { ResetType: type } })
  expect((await reset('ForceRestart')).status).toBe(204)
  const stateOf = async () => (await bench.ask('godwit', 'GET', path)).body
  expect(await stateOf()).toMatchObject({ PowerState: 'On', Status: { State: 'UnavailableOffline' } })
  bench.fleet.clock.step(600)
  expect(await stateOf()).toMatchObject({ Status: { State: 'Enabled' } })
  expect((await reset('ForceOff')).status).toBe(204)
  expect(await stateOf()).toMatchObject({ PowerState: 'Off' })
  expect((await reset('On')).status).toBe(204)
  expect(await stateOf()).toMatchObject({ PowerState: 'On', Status: { State: 'Enabled' } })
  expect((await reset('Explode')).status).toBe(400)
})
