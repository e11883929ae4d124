import Ajv from 'ajv/dist/2020.js'
import { formats } from '@/core/input'
import { operations } from '../api/v1/contract'
import { readBody } from './readBody'
import { readQuery } from './readQuery'

const bodyOf = (body: BodyInit | null, headers: Record<string, string> = {}) =>
  new Request('http://here/', { method: 'POST', body, headers, ...({ duplex: 'half' } as object) })
const read = (body: BodyInit | null, most = 1000) => readBody(bodyOf(body), most)

test('a body is read as JSON, and no further than it may be long', async () => {
  expect(await read('{"a":1}')).toEqual({ a: 1 })
  await expect(read('x'.repeat(1001))).rejects.toMatchObject({ code: 'api.body-too-large' })
  let pulled = 0
  const endless = new ReadableStream<Uint8Array>({
    pull: controller => {
      pulled += 1
      controller.enqueue(new Uint8Array(100).fill(32))
    },
  })
  await expect(read(endless)).rejects.toMatchObject({ code: 'api.body-too-large' })
  expect(pulled).toBeLessThan(20)
  await expect(readBody(bodyOf('{}', { 'Content-Length': '9999999' }), 1000)).rejects.toMatchObject({
    code: 'api.body-too-large',
  })
})

test.each([
  ['', /not JSON/],
  ['{"a":', /not JSON/],
  [new Uint8Array([0xff, 0xfe]), /not JSON/],
  ['{"a":"x\\u0000"}', /NUL/],
  ['{"a":"\\ud800"}', /half a character/],
  [`${'['.repeat(200)}${']'.repeat(200)}`, /deep/],
])('the body %j is refused, and says why', async (body, why) => {
  await expect(read(body)).rejects.toMatchObject({ code: 'api.bad-request', why: expect.stringMatching(why) })
})

test('fifty thousand unknown keys are counted, not looked at', async () => {
  const wide = JSON.stringify(Object.fromEntries(Array.from({ length: 50_000 }, (_, index) => [`k${index}`, 0])))
  await expect(readBody(bodyOf(wide), 2_000_000)).rejects.toMatchObject({ why: expect.stringContaining('members') })
})

const { query = {} } = operations.listVolumes
const isQuery = new Ajv({ formats }).compile({ type: 'object', additionalProperties: false, properties: query })
const asked = (text: string) => readQuery(new URLSearchParams(text), query, isQuery)

test('a query is read as the document says', () => {
  expect(asked('filter=web&limit=50&state=in use&descending=true')).toEqual({
    filter: 'web',
    limit: 50,
    state: 'in use',
    descending: 'true',
  })
})

test.each([
  'state=gone',
  'sort=naa',
  'poolId=------------------------------------',
  "poolId=' or 1=1",
  'limit=0',
  'limit=1e3',
  'limit=501',
  'offset=-1',
  'offset=99999999999999999999',
  'descending=yes',
  'colour=red',
  '__proto__=1',
  'constructor=1',
  'toString=1',
  'limit=1&limit=2',
  'filter=%00',
  `filter=${'x'.repeat(121)}`,
])('the query %j is refused, not passed over', text => {
  expect(() => asked(text)).toThrow(expect.objectContaining({ code: 'api.bad-request' }))
})
