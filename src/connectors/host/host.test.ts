import http from 'node:http'
import type { AddressInfo } from 'node:net'
import { setTimeout as pause } from 'node:timers/promises'
import { UnreadableAnswer } from '../http'
import { AnswerLate, NotReached } from '../http/errors'
import { nodeAgent } from '../node'
import { hostAgent, HostRefused } from '.'

let server: http.Server
let address: string
let asked: { readonly path: string; readonly body: string }[] = []
let answer: (response: http.ServerResponse) => void
const never = new AbortController().signal

beforeAll(async () => {
  server = http.createServer((request, response) => {
    let body = ''
    request.on('data', chunk => (body += String(chunk)))
    request.on('end', () => {
      asked.push({ path: `${request.method ?? ''} ${request.url ?? ''}`, body })
      answer(response)
    })
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => {
  server.closeAllConnections()
  server.close()
})
beforeEach(() => (asked = []))
const says = (body: unknown, status = 200) =>
  (answer = response =>
    response
      .writeHead(status, { 'Content-Type': 'application/json' })
      .end(typeof body === 'string' ? body : JSON.stringify(body)))

test('sizes beyond what a JSON number holds come whole', async () => {
  says({ devices: [{ naa: '6'.padEnd(32, '0'), sizeBytes: '9007199254740993', lun: 0, path: '/dev/a' }] })
  expect(await hostAgent(address, never).rescan()).toMatchObject([{ sizeBytes: 9007199254740993n, lun: 0 }])
})

test('a text that nobody can keep is told without what makes it so', async () => {
  const name = '"/dev/\\u0000a\\ud800"'
  says(`{"devices":[{"naa":"${'6'.padEnd(32, '0')}","sizeBytes":"1","lun":0,"path":${name}}]}`)
  expect(await hostAgent(address, never).rescan()).toMatchObject([{ path: '/dev/a\ufffd' }])
})

test('a refusal is told in the words of who refused', async () => {
  const said = { what: 'The device cannot be read.', why: 'Two pieces of that stripe are left.', remedy: 'Wait.' }
  says(said, 409)
  await expect(hostAgent(address, never).read('6', 0n, 10)).rejects.toMatchObject(said)
  await expect(nodeAgent(`${address}/nodes/godwit-1`, never).nonZeroBytes('S', 0n, 10)).rejects.toMatchObject(said)
  says('{}', 500)
  await expect(hostAgent(address, never).identity()).rejects.toBeInstanceOf(HostRefused)
})

test.each([
  ['no JSON', 'welcome'],
  ['a checksum that is none', { sha256: 'abc' }],
  ['nothing that was asked for', {}],
])('%s is refused whole, and says where', async (_, body) => {
  says(body)
  const reading = hostAgent(address, never).read('6', 0n, 10)
  await expect(reading).rejects.toBeInstanceOf(UnreadableAnswer)
  await expect(reading).rejects.toMatchObject({ what: expect.stringContaining('/agent/devices/6/read') })
})

test('how fast a host read is taken from its own figures, and no time at all is none', async () => {
  says({ requests: 1000, seconds: 5 })
  expect(await hostAgent(address, never).readFast('6a', 5, 4096)).toEqual({ requests: 1000, seconds: 5 })
  expect(asked).toEqual([{ path: 'POST /agent/devices/6a/read-fast', body: '{"seconds":5,"bytesEach":4096}' }])
  says({ requests: 1000, seconds: 0 })
  await expect(hostAgent(address, never).readFast('6a', 5, 4096)).rejects.toBeInstanceOf(UnreadableAnswer)
})

test('offsets beyond 2^53 are sent as text; a node that stands under a path is asked there', async () => {
  says({ nonZeroBytes: 0 })
  expect(await nodeAgent(`${address}/nodes/godwit-1/`, never).nonZeroBytes('A/1', 2n ** 60n, 65_536)).toBe(0)
  expect(asked).toEqual([
    {
      path: 'POST /nodes/godwit-1/agent/drives/A%2F1/read',
      body: '{"offsetBytes":"1152921504606846976","lengthBytes":65536}',
    },
  ])
})

test('a probe answers for each address what passed whole', async () => {
  const answers = [
    { address: '10.1.1.2', passedMtu: 1500 },
    { address: '10.1.1.3', passedMtu: null },
  ]
  says({ answers })
  expect(await nodeAgent(address, never).probe(['10.1.1.2', '10.1.1.3'], 9000)).toEqual(answers)
  says({ answers: [{ address: '10.1.1.2', passedMtu: '9000' }] })
  await expect(nodeAgent(address, never).probe(['10.1.1.2'], 9000)).rejects.toBeInstanceOf(UnreadableAnswer)
})

test('a closed port, a connection cut off, and a caller who stops waiting', async () => {
  const closed = http.createServer()
  await new Promise<void>(resolve => closed.listen(0, '127.0.0.1', resolve))
  const { port } = closed.address() as AddressInfo
  await new Promise(resolve => closed.close(resolve))
  await expect(hostAgent(`http://127.0.0.1:${port}`, never).identity()).rejects.toBeInstanceOf(NotReached)
  answer = response => response.destroy()
  await expect(hostAgent(address, never).write('6', 0n, 10, 's')).rejects.toBeInstanceOf(NotReached)
  expect(asked).toHaveLength(1)
  answer = () => undefined
  const stop = new AbortController()
  const waiting = hostAgent(address, stop.signal).identity()
  void pause(30).then(() => stop.abort())
  await expect(waiting).rejects.not.toBeInstanceOf(AnswerLate)
})

const way = {
  name: { server: '10.0.0.53:53', domain: null, addresses: ['10.0.0.9'], keptSeconds: 300, milliseconds: 1 },
  address: '10.0.0.9',
  route: { source: '10.0.1.7', gateway: null },
  ports: [{ port: 2049, isOpen: true, speaks: 'NFSv4.2', milliseconds: 1 }],
}
test.each([
  ['times before they began', { ...way, name: { ...way.name, milliseconds: -1 } }],
  ['more ports than can be', { ...way, ports: Array.from({ length: 17 }, () => way.ports[0]) }],
  ['a port that is none', { ...way, ports: [{ ...way.ports[0], port: 70_000 }] }],
  ['a name as long as a book', { ...way, name: { ...way.name, domain: 'a'.repeat(10_000) } }],
  ['half of what was asked', { name: way.name }],
])('of a way with %s nothing is believed', async (_, body) => {
  says(way)
  expect(await hostAgent(address, never).network.way('files.example')).toEqual(way)
  says(body)
  await expect(hostAgent(address, never).network.way('files.example')).rejects.toBeInstanceOf(UnreadableAnswer)
})

test('a share is tried and a forwarder set by the requests that a host takes', async () => {
  const { network } = hostAgent(address, never)
  says({ mount: null, read: null, write: 'read-only file system' })
  expect(await network.tryShare('files.example', '/scans', { uid: 1, gid: 2, groups: [] })).toMatchObject({
    read: null,
  })
  says({ server: '10.0.0.53:53', forwards: [] })
  await network.setForward('files.example', '')
  expect(asked.map(({ path }) => path)).toEqual(['POST /agent/shares/try', 'POST /agent/resolver'])
  expect(JSON.parse(asked[1]?.body ?? '')).toEqual({ domain: 'files.example', forward: '' })
})
