import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { anyPorts, startFleet, type Fleet } from '.'

let fleet: Fleet
let folder: string
let token = ''
const root = '/redfish/v1'
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fleet-'))
  fleet = await startFleet(folder, anyPorts, 60)
  const session = await send('POST', `${root}/SessionService/Sessions`, { UserName: 'admin', Password: 'heron-demo' })
  token = session.headers.get('x-auth-token') ?? ''
})
afterAll(async () => {
  await fleet.stop()
  rmSync(folder, { recursive: true })
})

async function send(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
  port = fleet.ports.arrays['heron'] ?? 0,
) {
  const answer = await fetch(`http://127.0.0.1:${port}${path}`, {
    method,
    headers: {
      ...(token === '' ? {} : { 'X-Auth-Token': token }),
      ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
      ...headers,
    },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  })
  const text = await answer.text()
  return {
    status: answer.status,
    headers: answer.headers,
    text,
    body: (text === '' ? {} : JSON.parse(text)) as Record<string, unknown>,
  }
}
const get = (path: string, headers: Record<string, string> = {}) => send('GET', path, undefined, headers)
const control = (method: string, path: string, body?: unknown) => send(method, path, body, {}, fleet.ports.control)
const members = (body: Record<string, unknown>) => body['Members'] as Record<string, unknown>[]

test('only the root and the sign-in are open; a wrong password opens nothing', async () => {
  const none = { 'X-Auth-Token': 'nothing' }
  expect((await get(`${root}/`, none)).status).toBe(200)
  expect(await get(`${root}/Chassis`, none)).toMatchObject({
    status: 401,
    body: { error: { code: 'Base.1.18.NoValidSession' } },
  })
  const wrong = await send('POST', `${root}/SessionService/Sessions`, { UserName: 'admin', Password: 'x' })
  expect(wrong.status).toBe(401)
  expect(wrong.headers.get('x-auth-token')).toBeNull()
})

test('a collection is read in pages, each expanded where that is asked for, and nothing twice', async () => {
  const chassis = members((await get(`${root}/Chassis`)).body)
  const drives = `${String(chassis[0]?.['@odata.id'])}/Drives`
  const found: string[] = []
  let next: string | undefined = `${drives}?$expand=.&$top=10`
  while (next !== undefined) {
    const { body }: { body: Record<string, unknown> } = await get(next)
    for (const member of members(body)) {
      expect(member['SerialNumber']).toEqual(expect.any(String))
      found.push(String(member['@odata.id']))
    }
    next = body['Members@odata.nextLink'] as string | undefined
  }
  expect(found).toHaveLength(24)
  expect(new Set(found).size).toBe(24)
  expect(Object.keys(members((await get(drives)).body)[0] ?? {})).toEqual(['@odata.id'])
})

test('an unchanged resource is told by its tag; a change against another state than was read is refused', async () => {
  const first = await get(`${root}/Storage/1`)
  const tag = first.headers.get('etag') ?? ''
  expect(await get(`${root}/Storage/1`, { 'If-None-Match': tag })).toMatchObject({ status: 304, text: '' })
  expect((await get(`${root}/Storage/1`, { 'If-None-Match': '"other"' })).status).toBe(200)
})

test('errors have the standard’s body, with what to do', async () => {
  for (const [method, path, body, status] of [
    ['GET', `${root}/Nowhere`, undefined, 404],
    ['POST', `${root}/Storage/1/StoragePools`, '{"Name": ', 400],
    ['POST', `${root}/Storage/1/StoragePools`, { Name: 5 }, 400],
    ['DELETE', `${root}/Storage/1/Volumes/none`, undefined, 404],
  ] as const) {
    const answer = await send(method, path, body)
    expect(answer.status).toBe(status)
    expect(answer.body).toMatchObject({
      error: {
        '@Message.ExtendedInfo': [
          { MessageId: expect.any(String), Message: expect.any(String), Resolution: expect.any(String) },
        ],
      },
    })
  }
})

test('a session that is ended opens nothing any more', async () => {
  const opened = await send('POST', `${root}/SessionService/Sessions`, { UserName: 'admin', Password: 'heron-demo' })
  const own = { 'X-Auth-Token': opened.headers.get('x-auth-token') ?? '' }
  expect((await get(`${root}/Chassis`, own)).status).toBe(200)
  expect((await send('DELETE', String(opened.body['@odata.id']), undefined, own)).status).toBeLessThan(300)
  expect((await get(`${root}/Chassis`, own)).status).toBe(401)
})

test('the clock is set and stepped, never back', async () => {
  expect((await control('PUT', '/clock', { rate: 0 })).body).toMatchObject({ rate: 0 })
  const before = Date.parse(String((await control('GET', '/fleet')).body['now']))
  const after = Date.parse(String((await control('POST', '/clock/step', { seconds: 3600 })).body['now']))
  expect(after - before).toBe(3_600_000)
  expect((await control('POST', '/clock/step', { seconds: -1 })).status).toBe(400)
  expect((await control('PUT', '/clock', { rate: 'fast' })).status).toBe(400)
  expect((await control('PUT', '/clock', { rate: 60 })).body).toMatchObject({ rate: 60 })
})

test('a fault strikes as often as it was told and is cleared; one that does not exist is refused by name', async () => {
  await control('POST', '/faults', { target: 'heron', kind: 'unavailable', retryAfterSeconds: 7, times: 1 })
  const struck = await get(`${root}/Chassis`)
  expect([struck.status, struck.headers.get('retry-after')]).toEqual([503, '7'])
  expect((await get(`${root}/Chassis`)).status).toBe(200)
  await control('POST', '/faults', { target: 'heron', kind: 'unavailable' })
  expect((await get(`${root}/Chassis`)).status).toBe(503)
  expect((await control('DELETE', '/faults/all')).body).toMatchObject({ faults: [] })
  expect((await get(`${root}/Chassis`)).status).toBe(200)
  expect(await control('POST', '/faults', { target: 'heron', kind: 'lightning' })).toMatchObject({
    status: 400,
    body: { why: expect.stringContaining('drive-fails') },
  })
  expect(await control('POST', '/faults', { target: 'swan', kind: 'slow' })).toMatchObject({
    status: 400,
    body: { why: 'no system swan' },
  })
})

test('a fault at a node, port or drive that is not there is refused, and changes nothing', async () => {
  for (const more of [
    { kind: 'node-down', node: 'godwit-9' },
    { kind: 'clock-skew', node: 'godwit-9' },
    { kind: 'port-mtu', port: 'switch-9.1' },
    { kind: 'drive-fails', drive: 'godwit-9/1' },
    { kind: 'drive-pulled', drive: 'godwit-1/99' },
  ]) {
    const answer = await control('POST', '/faults', { target: 'godwit', ...more })
    expect([answer.status, answer.body['why']]).toEqual([
      400,
      expect.stringMatching(/^no (node|port|drive) (godwit|switch)-/),
    ])
  }
  expect(fleet.row.all('nodes').every(node => node.isUp)).toBe(true)
})

test('what workloads wrote is set by volume name, in whole bytes', async () => {
  const volume = fleet.arrays.find(array => array.model.name === 'bittern')?.all('volumes')[0]
  const set = (bytes: unknown) => control('POST', '/workload', { system: 'bittern', volume: volume?.name, bytes })
  expect((await set('9007199254740993')).status).toBe(200)
  expect(fleet.arrays.flatMap(array => array.all('volumes')).find(each => each.id === volume?.id)?.workloadBytes).toBe(
    '9007199254740993',
  )
  expect((await set(1.5)).status).toBe(400)
  expect((await control('POST', '/workload', { system: 'bittern', volume: 'none', bytes: '1' })).status).toBe(400)
})
