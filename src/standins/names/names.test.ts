import { execFile, spawn } from 'node:child_process'
import { createSocket } from 'node:dgram'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import packet from 'dns-packet'
import { Store } from '../fleet'
import { NameServer } from './NameServer'

/** Asked by commands that nobody here wrote, from the system's packages, and by bytes that no honest client sends. */
const run = promisify(execFile)
let folder: string
let names: NameServer
let port: number
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'names-'))
  names = new NameServer(new Store(folder), ['hall.example', '10.in-addr.arpa', 'd.f.ip6.arpa'])
  names.setForward('stair.hall.example', '10.1.2.3')
  names.setForward('six.deep.hall.example', 'fd00::12')
  names.setReverse('10.1.2.3', 'stair.hall.example')
  names.setReverse('fd00::12', 'six.deep.hall.example')
  port = await names.listen(0)
})
afterAll(async () => {
  await names.stop()
  rmSync(folder, { recursive: true })
})

const dig = async (...words: string[]) =>
  (await run('/usr/bin/dig', ['@127.0.0.1', '-p', `${port}`, '+tries=1', '+time=2', ...words])).stdout
const statusOf = (text: string) => /status: (\w+)/.exec(text)?.[1]

async function update(...lines: string[]): Promise<string> {
  const child = spawn('/usr/bin/nsupdate', ['-v'])
  let said = ''
  child.stdout.on('data', (text: Buffer) => (said += text.toString()))
  child.stderr.on('data', (text: Buffer) => (said += text.toString()))
  const ended = new Promise<void>(done => child.on('close', () => done()))
  child.stdin.end([`server 127.0.0.1 ${port}`, ...lines, 'send', ''].join('\n'))
  await ended
  return said.trim()
}

test('names and addresses of both families, over UDP and TCP, in any case', async () => {
  expect(await dig('+short', 'STAIR.hall.Example', 'A')).toBe('10.1.2.3\n')
  expect(await dig('+short', '+tcp', 'six.deep.hall.example', 'AAAA')).toBe('fd00::12\n')
  expect(await dig('+short', '-x', '10.1.2.3')).toBe('stair.hall.example.\n')
  expect(await dig('+short', '-x', 'fd00::12')).toBe('six.deep.hall.example.\n')
})

test('the top of a zone says who serves it; other zones are refused', async () => {
  expect(await dig('+short', 'hall.example', 'NS')).toBe('ns.hall.example.\n')
  expect(await dig('+short', 'ns.hall.example', 'A')).toBe('127.0.0.1\n')
  expect(await dig('+short', 'hall.example', 'SOA')).toMatch(
    /^ns\.hall\.example\. hostmaster\.hall\.example\. \d+ 3600/,
  )
  for (const name of ['elsewhere.example', 'example', 'www.hall.example.com', '192.in-addr.arpa'])
    expect([name, statusOf(await dig(name, 'A'))]).toEqual([name, 'REFUSED'])
  expect(statusOf(await dig('-c', 'CH', 'version.hall.example', 'TXT'))).toBe('REFUSED')
})

test('nothing of a type is not nothing of a name; both say how long that may be remembered', async () => {
  const noType = await dig('stair.hall.example', 'AAAA')
  const noName = await dig('nobody.hall.example', 'A')
  const between = await dig('deep.hall.example', 'A')
  expect([noType, noName, between].map(statusOf)).toEqual(['NOERROR', 'NXDOMAIN', 'NOERROR'])
  for (const text of [noType, noName, between]) {
    expect(text).toContain('ANSWER: 0, AUTHORITY: 1')
    expect(text).toMatch(/flags: qr aa/)
  }
})

test('EDNS is answered in EDNS; another version is told so; without it there is none', async () => {
  expect(await dig('stair.hall.example')).toMatch(/EDNS: version: 0, flags:; udp: 1232/)
  expect(statusOf(await dig('+edns=1', '+noednsnegotiation', 'stair.hall.example'))).toBe('BADVERS')
  expect(await dig('+noedns', 'stair.hall.example')).not.toContain('EDNS')
})

test('records are added, replaced and removed by updates, under conditions, wholly or not at all', async () => {
  const before = Number((await dig('+short', 'hall.example', 'SOA')).split(' ')[2])
  expect(
    await update('update add new.hall.example 60 A 10.9.9.9', 'update add old.hall.example 60 CNAME new.hall.example'),
  ).toBe('')
  expect(await dig('+short', 'old.hall.example', 'A')).toBe('new.hall.example.\n10.9.9.9\n')
  expect(Number((await dig('+short', 'hall.example', 'SOA')).split(' ')[2])).toBeGreaterThan(before)
  expect(await update('prereq nxdomain new.hall.example', 'update add new.hall.example 60 A 10.9.9.8')).toContain(
    'YXDOMAIN',
  )
  expect(await update('prereq yxdomain none.hall.example', 'update delete new.hall.example')).toContain('NXDOMAIN')
  expect(await update('prereq nxrrset new.hall.example A', 'update delete new.hall.example')).toContain('YXRRSET')
  expect(await update('prereq yxrrset new.hall.example A 10.9.9.8', 'update delete new.hall.example')).toContain(
    'NXRRSET',
  )
  expect(await dig('+short', 'new.hall.example', 'A')).toBe('10.9.9.9\n')
  expect(
    await update(
      'prereq yxrrset new.hall.example A 10.9.9.9',
      'update delete new.hall.example A',
      'update add new.hall.example 60 A 10.9.9.7',
      'update add new.hall.example 60 AAAA fd00::77',
    ),
  ).toBe('')
  expect(await dig('+short', 'new.hall.example', 'A')).toBe('10.9.9.7\n')
  // An alias stands alone: what would stand beside it is passed over.
  expect(await update('update add old.hall.example 60 A 10.9.9.1')).toBe('')
  expect(await dig('+short', 'old.hall.example', 'A')).toBe('new.hall.example.\n10.9.9.7\n')
  expect(await update('update delete new.hall.example AAAA fd00::77', 'update delete old.hall.example')).toBe('')
  expect(await dig('+short', 'new.hall.example', 'AAAA')).toBe('')
  expect(statusOf(await dig('old.hall.example', 'A'))).toBe('NXDOMAIN')
})

test('what is no business of the zone is refused, and nothing of the same update is done', async () => {
  expect(await update('zone other.example', 'update add a.other.example 60 A 10.0.0.1')).toContain('NOTAUTH')
  expect(
    await update('zone hall.example', 'update add a.hall.example 60 A 10.0.0.1', 'update add a.example 60 A 10.0.0.1'),
  ).toMatch(/NOTZONE|not within/)
  expect(
    await update(
      'zone hall.example',
      'update add b.hall.example 60 A 10.0.0.1',
      'update add hall.example 60 A 10.0.0.1',
    ),
  ).toContain('REFUSED')
  expect(
    await update(
      'zone hall.example',
      'update add b.hall.example 60 A 10.0.0.1',
      'update add c.hall.example 60 TXT "x"',
    ),
  ).toContain('REFUSED')
  expect(await dig('+short', 'b.hall.example', 'A')).toBe('')
})

/** Sends bytes and waits a moment for an answer. */
function raw(bytes: Buffer): Promise<Buffer | undefined> {
  const socket = createSocket('udp4')
  return new Promise(resolve => {
    const timer = setTimeout(() => resolve(undefined), 300)
    socket.on('message', answer => {
      clearTimeout(timer)
      resolve(answer)
    })
    socket.send(bytes, port, '127.0.0.1')
  }).finally(() => socket.close()) as Promise<Buffer | undefined>
}

test('an answer is never answered; nonsense is told to be nonsense; rings in names end', async () => {
  const question = { type: 'A' as const, name: 'stair.hall.example' }
  expect(await raw(packet.encode({ type: 'response', id: 7, questions: [question] }))).toBeUndefined()
  expect(await raw(Buffer.from('short'))).toBeUndefined()
  const rcode = async (bytes: Buffer) =>
    (((await raw(bytes))?.readUInt16BE(2) ?? 0) & 0x8000) === 0 ? -1 : ((await raw(bytes))?.readUInt16BE(2) ?? 0) & 15
  expect(await rcode(packet.encode({ type: 'query', id: 7, questions: [] }))).toBe(1)
  expect(await rcode(packet.encode({ type: 'query', id: 7, questions: [question, question] }))).toBe(1)
  expect(await rcode(packet.encode({ type: 'query', id: 7, flags: 2 << 11, questions: [question] }))).toBe(4)
  const header = (opcode: number) => Buffer.from([0, 7, opcode << 3, 0, 0, 1, 0, 0, 0, 0, 0, 0])
  const ring = Buffer.from([0xc0, 12, 0, 6, 0, 1])
  expect(await rcode(Buffer.concat([header(0), ring]))).toBe(1)
  expect(await rcode(Buffer.concat([header(5), ring]))).toBe(1)
  expect(await rcode(header(5))).toBe(1)
  expect(await dig('+short', 'stair.hall.example', 'A')).toBe('10.1.2.3\n')
})

test('an answer that does not fit a datagram says so, and comes whole over TCP', async () => {
  const many = Array.from({ length: 60 }, (_, index) => `update add many.hall.example 60 A 10.7.0.${index}`)
  expect(await update(...many)).toBe('')
  expect(await dig('+ignore', '+noedns', 'many.hall.example', 'A')).toMatch(/flags: qr aa tc/)
  expect((await dig('+short', 'many.hall.example', 'A')).trim().split('\n')).toHaveLength(60)
})

test('records that an earlier version has kept are still there, and can be replaced', () => {
  const store = new Store(join(folder, 'earlier'))
  store.commit([
    {
      collection: 'names',
      id: 'forward/old.hall.example',
      value: { kind: 'forward', name: 'Old.hall.example', address: '10.3.3.3' },
    },
    {
      collection: 'names',
      id: 'reverse/10.3.3.3',
      value: { kind: 'reverse', name: 'old.hall.example', address: '10.3.3.3' },
    },
  ])
  const earlier = new NameServer(store, ['hall.example', '10.in-addr.arpa'])
  const ask = (type: 'A' | 'PTR', name: string) =>
    earlier.answer({ type: 'query', id: 1, questions: [{ type, name }] }).answers
  expect(ask('A', 'old.hall.example')).toMatchObject([{ data: '10.3.3.3' }])
  expect(ask('PTR', '3.3.3.10.in-addr.arpa')).toMatchObject([{ data: 'old.hall.example' }])
  earlier.setForward('old.hall.example', '10.3.3.4')
  earlier.setReverse('10.3.3.3', '')
  expect(ask('A', 'old.hall.example')).toMatchObject([{ data: '10.3.3.4' }])
  expect(ask('PTR', '3.3.3.10.in-addr.arpa')).toEqual([])
})

test('before the border other addresses are told, no way leads back, and nothing can be changed', async () => {
  const store = new Store(folder)
  const own = new NameServer(store, ['hall.example', '10.in-addr.arpa'])
  own.setForward('gate.hall.example', '10.1.2.77')
  own.setReverse('10.1.2.77', 'gate.hall.example')
  own.setForward('six.hall.example', 'fd00::77')
  const outside = new NameServer(store, ['hall.example', '10.in-addr.arpa'], true)
  const at = await outside.listen(0)
  const ask = async (...words: string[]) =>
    (await run('/usr/bin/dig', ['@127.0.0.1', '-p', `${at}`, '+tries=1', '+time=2', ...words])).stdout
  try {
    expect(await ask('+short', 'gate.hall.example')).toBe('203.0.113.77\n')
    expect(await ask('+short', 'six.hall.example', 'AAAA')).toBe('')
    expect(statusOf(await ask('-x', '10.1.2.77'))).toBe('REFUSED')
    const child = spawn('/usr/bin/nsupdate', ['-v'])
    const ended = new Promise<number | null>(done => child.on('close', done))
    child.stdin.end(`server 127.0.0.1 ${at}\nupdate add late.hall.example 60 A 10.1.1.1\nsend\n`)
    expect(await ended).not.toBe(0)
    expect(own.zones.at('late.hall.example')).toEqual([])
  } finally {
    await outside.stop()
  }
})
