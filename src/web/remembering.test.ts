import type { Server } from 'node:http'
import { front } from './front'
import { remembering, standsFor, type Knowing } from './remembering'
import { askedAt } from './testing/askedAt'

let server: Server
let port = 0
/** How often what stands behind was asked for each path. */
let reached: Record<string, number> = {}
let forget = () => undefined as void
let isTold = true

/** Readers are known by their cookie; `gone` is none any more. */
const knowing: Knowing = {
  askerOf: ({ headers: { cookie = '' } }) => Promise.resolve(/wendrel=(?!gone)(\w+)/.exec(cookie)?.[1]),
  isTold: () => isTold,
  onChange: callback => (forget = callback),
}
beforeEach(async () => {
  reached = {}
  isTold = true
  const behind = remembering(async (request, response) => {
    const path = request.url ?? ''
    const count = (reached[path] = (reached[path] ?? 0) + 1)
    await new Promise(done => setTimeout(done, 20))
    const nonce = /'nonce-([^']+)'/.exec(String(request.headers['content-security-policy']))?.[1] ?? ''
    if (path === '/breaks') throw new Error('it breaks')
    if (path === '/refused') response.statusCode = 404
    if (path === '/cookie') response.setHeader('Set-Cookie', 'a=b')
    response.setHeader('Content-Type', path.startsWith('/api/') ? 'application/json' : 'text/html; charset=utf-8')
    response.write(`<script nonce="${nonce}">`)
    response.end(`${request.headers.cookie ?? 'nobody'} saw ${count}`)
  }, knowing)
  server = front(behind, '')
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  port = (server.address() as { port: number }).port
})
afterEach(() => {
  server.closeAllConnections()
  server.close()
})

const asked = (path: string, cookie?: string, method = 'GET', more: Record<string, string> = {}) =>
  askedAt(port, path, { method, headers: { ...more, ...(cookie === undefined ? {} : { cookie }) } })
const ada = 'wendrel=ada'

test('the same reader is answered from memory until something changes, each time with a nonce of its own', async () => {
  const [first, second] = [await asked('/build', ada), await asked('/build', ada)]
  expect(first.text).toMatch(/wendrel=ada saw 1$/)
  expect(second.text).toMatch(/wendrel=ada saw 1$/)
  expect(second.headers['content-type']).toBe('text/html; charset=utf-8')
  for (const { text, headers } of [first, second]) {
    const nonce = /nonce="([^"]{22,})"/.exec(text)?.[1]
    expect(headers['content-security-policy']).toContain(`'nonce-${nonce}'`)
  }
  expect(first.headers['content-security-policy']).not.toBe(second.headers['content-security-policy'])
  forget()
  expect((await asked('/build', ada)).text).toMatch(/saw 2$/)
})

test('nobody sees what was answered to somebody else, nor a session that has ended what it saw before', async () => {
  await asked('/build', ada)
  expect((await asked('/build', 'wendrel=ben')).text).toMatch(/wendrel=ben saw 2$/)
  expect((await asked('/build')).text).toMatch(/nobody saw 3$/)
  expect((await asked('/build', 'wendrel=gone')).text).toMatch(/wendrel=gone saw 4$/)
  expect((await asked('/build', ada)).text).toMatch(/wendrel=ada saw 1$/)
})

test('by night, and for a part of a page, the answer is another one', async () => {
  await asked('/build', ada)
  expect((await asked('/build', `${ada}; theme=night`)).text).toMatch(/saw 2$/)
  expect((await asked('/build', ada, 'GET', { rsc: '1' })).text).toMatch(/saw 3$/)
  expect((await asked('/build?sel=1', ada)).text).toMatch(/saw 1$/)
})

test.each([
  ['a change', '/build', 'POST'],
  ['a stream', '/api/v1/events', 'GET'],
  ['a file', '/_next/static/x.js', 'GET'],
  ['a refusal', '/refused', 'GET'],
  ['what sets a cookie', '/cookie', 'GET'],
])('%s is never answered from memory', async (_what, path, method) => {
  await asked(path, ada, method)
  await asked(path, ada, method)
  expect(reached[path]).toBe(2)
})

test('many who ask at once wait for one answer; what changes meanwhile is not kept', async () => {
  const all = await Promise.all(Array.from({ length: 20 }, () => asked('/provision', ada)))
  expect(new Set(all.map(each => each.text.replace(/nonce="[^"]*"/, ''))).size).toBe(1)
  expect(reached['/provision']).toBe(1)
  const slow = asked('/changes', ada)
  // It is being answered: what is forgotten before that has not been read yet.
  while (reached['/changes'] === undefined) await new Promise(done => setTimeout(done, 1))
  forget()
  await slow
  expect((await asked('/changes', ada)).text).toMatch(/saw 2$/)
})

test('while changes are not told nothing is remembered, and a fault is everybody’s own', async () => {
  isTold = false
  await asked('/build', ada)
  expect((await asked('/build', ada)).text).toMatch(/saw 2$/)
  isTold = true
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined)
  const faults = await Promise.all([asked('/breaks', ada), asked('/breaks', ada)])
  expect(faults.map(each => each.status)).toEqual([500, 500])
  quiet.mockRestore()
})

test('what a reader can take compressed is sent so, from memory as well', async () => {
  const gzip = { 'accept-encoding': 'gzip' }
  const long = `${ada}; ${'x'.repeat(2000)}`
  expect((await asked('/build', long, 'GET', gzip)).headers['content-encoding']).toBe('gzip')
  expect((await asked('/build', long, 'GET', gzip)).headers['content-encoding']).toBe('gzip')
  expect(reached['/build']).toBe(1)
})

test('what takes long to make stands for longer, so that making it anew takes a fortieth of a processor at most', () => {
  expect([0, 50, 125, 250, 600, 60_000].map(standsFor)).toEqual([5000, 5000, 5000, 10_000, 24_000, 30_000])
})
