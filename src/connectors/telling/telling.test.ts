import { createServer } from 'node:http'
import type net from 'node:net'
import type { Message } from '@/core/telling'
import { NightDesk, type DeskPorts } from '@/standins/desk'
import { tellerFor, type RouteAccess } from '.'
import { signedHeaders } from './webhook'

let desk: NightDesk
let ports: DeskPorts
beforeAll(async () => {
  desk = new NightDesk()
  ports = await desk.listen({ http: 0, smtp: 0, syslog: 0 })
})
afterAll(() => desk.stop())

const access = (more: Partial<RouteAccess>): RouteAccess => ({
  address: '',
  sender: null,
  recipients: [],
  userName: null,
  secret: undefined,
  allowedNetworks: '127.0.0.0/8',
  ownAddress: 'http://wendrel.example',
  stop: new AbortController().signal,
  ...more,
})
const message: Message = {
  state: 'begun',
  gravity: 'now',
  subject: 'Now: fast is 91% full',
  lines: ['“Quotes”\r\nBcc: everybody@example', 'Do.'],
  href: '/watch?sel=1',
  rule: 'Pools that fill',
  key: 'fill/1',
}
const refusal = (cause: unknown) => cause as { readonly code: string; readonly why: string }
const latest = () => desk.received.at(-1)

test('a webhook is signed so that its receiver can tell who sends, and a changed byte breaks it', async () => {
  desk.key = 'a shared key'
  const route = access({ address: `http://127.0.0.1:${ports.http}/told`, secret: 'a shared key' })
  const { answer, sent } = await tellerFor('webhook', route).tell(message, 'id-1')
  expect(answer).toBe('202 {"taken":true}')
  expect(sent).toContain('Signature-Input: told=("@method" "@target-uri" "content-digest")')
  expect(latest()).toMatchObject({ way: 'webhook', isSigned: true })
  expect(JSON.parse(latest()?.text ?? '')).toMatchObject({ id: 'id-1', url: 'http://wendrel.example/watch?sel=1' })
  const wrong = access({ address: `http://127.0.0.1:${ports.http}/told`, secret: 'another key' })
  await tellerFor('webhook', wrong).tell(message, 'id-2')
  expect(latest()).toMatchObject({ isSigned: false })
})

/** Computed beside this by another program, openssl, from the same base. */
test('a signature is that of RFC 9421 over method, target and digest', () => {
  const headers = signedHeaders(new URL('https://desk.example/told'), '{"a":1}', 'key', 1_777_777_777)
  expect(headers['Content-Digest']).toBe('sha-256=:AVq9f1zFei3ZS3WQ8ErYCEJzkF7jPsXOvq5iJ2qX+GI=:')
  expect(headers['Signature-Input']).toBe(
    'told=("@method" "@target-uri" "content-digest");created=1777777777;keyid="wendrel";alg="hmac-sha256"',
  )
  expect(headers['Signature']).toBe('told=:olxiR6QuIxlvOjfSWVEoczXI579yjVf2qABYnkAiNlo=:')
})

test('mail goes to all it is to, and nothing that it is told of becomes a header', async () => {
  const route = access({
    address: `smtp://127.0.0.1:${ports.smtp}`,
    sender: 'wendrel@museum.example',
    recipients: ['desk@museum.example', 'night@museum.example'],
  })
  const hostile = { ...message, subject: 'Full\r\nBcc: everybody@example.org' }
  const { answer } = await tellerFor('mail', route).tell(hostile, 'id-3')
  expect(answer).toMatch(/^250/)
  const got = latest()
  expect(got).toMatchObject({ way: 'mail', to: ['desk@museum.example', 'night@museum.example'] })
  const [head = ''] = (got?.text ?? '').split('\r\n\r\n')
  expect(head).not.toMatch(/^Bcc:/im)
  expect(head).toContain('Auto-Submitted: auto-generated')
  expect(head).toContain('Message-ID: <id-3@wendrel.invalid>')
})

test('a mailbox that is not there, and a server that offers no TLS for a password, are refusals with what was said', async () => {
  const route = { address: `smtp://127.0.0.1:${ports.smtp}`, sender: 'w@museum.example' }
  const gone = access({ ...route, recipients: ['nobody@museum.example'] })
  const said = await tellerFor('mail', gone).tell(message, 'id-4').catch(refusal)
  expect(said).toMatchObject({ code: 'telling.not-taken', why: expect.stringContaining('No mailbox') as string })
  const withPassword = access({ ...route, recipients: ['d@museum.example'], userName: 'w', secret: 's3cret' })
  const clear = await tellerFor('mail', withPassword).tell(message, 'id-5').catch(refusal)
  expect(clear).toMatchObject({ code: 'telling.not-taken' })
  expect(desk.received.some(({ text }) => text.includes('s3cret'))).toBe(false)
})

test.each(['udp', 'tcp'])('syslog over %s brings one whole line', async scheme => {
  const before = desk.received.length
  await tellerFor('syslog', access({ address: `${scheme}://127.0.0.1:${ports.syslog}` })).tell(message, 'id-6')
  for (let waited = 0; desk.received.length === before && waited < 500; waited += 1)
    await new Promise(resolve => setTimeout(resolve, 20))
  expect(desk.received.length).toBe(before + 1)
  expect(latest()?.text).toMatch(/^<10>1 .* wendrel - begun \[matter@32473 id="id-6".*\] \ufeffNow: fast is 91% full/)
})

test('nothing is told to an address that is barred, whatever the way', async () => {
  const barred = { allowedNetworks: '', sender: 'w@museum.example', recipients: ['d@museum.example'] }
  for (const [way, address] of [
    ['webhook', `http://127.0.0.1:${ports.http}/told`],
    ['mail', `smtp://127.0.0.1:${ports.smtp}`],
    ['syslog', `udp://127.0.0.1:${ports.syslog}`],
    ['syslog', `tcp://localhost:${ports.syslog}`],
  ] as const) {
    const said = await tellerFor(way, access({ ...barred, address }))
      .tell(message, 'id-7')
      .catch(refusal)
    expect([way, said]).toMatchObject([way, { code: 'connection.address-barred' }])
  }
})

test('a receiver that redirects, says no, or answers without end is not taken for one that took it', async () => {
  const answers = createServer((request, response) => {
    if (request.url === '/redirect') return response.writeHead(302, { Location: 'http://169.254.169.254/' }).end()
    if (request.url === '/no') return response.writeHead(410).end('gone')
    response.writeHead(200)
    response.write('x'.repeat(100_000))
  })
  await new Promise<void>(resolve => answers.listen(0, '127.0.0.1', resolve))
  const { port } = answers.address() as net.AddressInfo
  const said = (path: string) =>
    tellerFor('webhook', access({ address: `http://127.0.0.1:${port}${path}` }))
      .tell(message, 'id-8')
      .catch(refusal)
  expect(await said('/redirect')).toMatchObject({ code: 'connection.redirected' })
  expect(await said('/no')).toMatchObject({ code: 'telling.not-taken', why: 'It answers 410 gone.' })
  expect(await said('/endless')).toMatchObject({ code: 'connection.unreadable-answer' })
  answers.closeAllConnections()
  await new Promise(resolve => answers.close(resolve))
})
