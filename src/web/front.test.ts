import type { IncomingHttpHeaders, Server } from 'node:http'
import { front } from './front'
import { networksOf, peerOf } from './peer'
import { askedAt } from './testing/askedAt'

let server: Server
let port = 0
/** What stood behind has been asked with. */
let reached: { headers: IncomingHttpHeaders; url: string | undefined }[] = []

async function listen(trusted: string): Promise<void> {
  reached = []
  server = front(async (request, response) => {
    reached.push({ headers: request.headers, url: request.url })
    if (request.url === '/breaks') throw new Error('the secret of the house')
    response.end('ok')
  }, trusted)
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  port = (server.address() as { port: number }).port
}
afterEach(() => {
  server.closeAllConnections()
  server.close()
})

const asked = (path: string, options: Parameters<typeof askedAt>[2] = {}) => askedAt(port, path, options)

test('every answer bears the headers of security, also one that fails, and tells nothing of the fault', async () => {
  await listen('')
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined)
  for (const path of ['/', '/api/v1/x', '/_next/static/x.js', '/breaks', '/%zz']) {
    const { headers } = await asked(path)
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'")
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin' })
    expect(headers['strict-transport-security']).toBeUndefined()
  }
  expect((await asked('/breaks')).text).not.toContain('secret')
  quiet.mockRestore()
})

test('a page may run only its own scripts: each answer has a nonce of its own, which Next is told', async () => {
  await listen('')
  const [first, second] = [await asked('/'), await asked('/')]
  const nonceOf = (policy: unknown) => /'nonce-([^']{22,})'/.exec(String(policy))?.[1]
  expect(nonceOf(first.headers['content-security-policy'])).toBeDefined()
  expect(nonceOf(first.headers['content-security-policy'])).not.toBe(nonceOf(second.headers['content-security-policy']))
  expect(reached[0]?.headers['content-security-policy']).toBe(first.headers['content-security-policy'])
  expect(String(first.headers['content-security-policy'])).not.toContain("script-src 'self' 'unsafe")
})

test('a body that is too long is refused before anything reads it', async () => {
  await listen('')
  const { status } = await asked('/api/v1/session', { method: 'POST', headers: { 'Content-Length': '50000000' } })
  expect([status, reached]).toEqual([413, []])
})

test.each([
  ['/%ff', 'GET', 400],
  ['*', 'OPTIONS', 400],
  [`/${'x'.repeat(9000)}`, 'GET', 414],
  ['/', 'PROPFIND', 501],
])('%j by %s is refused with %i', async (path, method, status) => {
  await listen('')
  expect((await asked(path.slice(0, 9000), { method })).status).toBe(status)
  expect(reached).toEqual([])
})

test('what a sender says of itself is not believed, and what only we may say is taken out', async () => {
  await listen('')
  const lies = {
    'X-Forwarded-For': '10.0.0.1',
    'X-Forwarded-Proto': 'https',
    'X-Wendrel-Peer': '10.0.0.1',
    'X-Wendrel-Tls': '1',
  }
  const { headers } = await asked('/', { headers: lies })
  expect(headers['strict-transport-security']).toBeUndefined()
  expect(reached[0]?.headers).toMatchObject({ 'x-wendrel-peer': '127.0.0.1', 'x-wendrel-tls': '0' })
  expect(reached[0]?.headers['x-forwarded-for']).toBeUndefined()
})

test('a proxy of ours is believed: the first address from the right that is none of ours sent it, by TLS', async () => {
  await listen('127.0.0.0/8, 10.9.0.0/16')
  const { headers } = await asked('/', {
    headers: { 'X-Forwarded-For': '1.1.1.1, 203.0.113.7, 10.9.0.4', 'X-Forwarded-Proto': 'https' },
  })
  expect(headers['strict-transport-security']).toContain('max-age=')
  expect(reached[0]?.headers).toMatchObject({ 'x-wendrel-peer': '203.0.113.7', 'x-wendrel-tls': '1' })
})

test('an IPv6 sender is counted by the network that is its own, and a mapped IPv4 address is that address', () => {
  const from = (remoteAddress: string) => peerOf({ headers: {}, socket: { remoteAddress } as never }, []).address
  expect(from('2001:db8:1:2:aaaa::1')).toBe(from('2001:db8:1:2:bbbb::9'))
  expect(from('2001:db8:1:3::1')).not.toBe(from('2001:db8:1:2::1'))
  expect(from('::ffff:192.0.2.1')).toBe('192.0.2.1')
  expect(() => networksOf('not a network')).toThrow()
})
