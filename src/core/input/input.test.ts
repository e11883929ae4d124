import fc from 'fast-check'
import { formats, isStorable, isUuid, outOfBounds, storable, wholeNumber } from '.'

const bounds = { depth: 24, members: 1000 }
const nested = (depth: number): unknown => {
  let document: unknown = 1
  for (let each = 0; each < depth; each += 1) document = [document]
  return document
}

test('a document within its bounds is looked at', () => {
  expect(outOfBounds({ a: [1, 'two', null, { b: true }] }, bounds)).toBeUndefined()
  expect(outOfBounds(nested(24), bounds)).toBeUndefined()
})

test('depth, width and what cannot be kept are told apart', () => {
  expect(outOfBounds(nested(25), bounds)).toMatch(/deep/)
  expect(outOfBounds(nested(200_000), bounds)).toMatch(/deep/)
  expect(outOfBounds(Array.from({ length: 1001 }), bounds)).toMatch(/1000 members/)
  expect(outOfBounds({ a: ['x\0'] }, bounds)).toMatch(/NUL/)
  expect(outOfBounds({ 'a\ud800': 1 }, bounds)).toMatch(/name/)
})

test('what is made storable can be stored, and what could be is left as it is', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.constantFrom('', '\0', '\ud800', '\udc00x'), (text, bad) => {
      expect(isStorable(storable(text + bad))).toBe(true)
      if (isStorable(text)) expect(storable(text)).toBe(text)
    }),
  )
})

test.each(['------------------------------------', '0'.repeat(36), '', '0190b0c0-0000-7000-8000-00000000000G'])(
  '%j is no UUID',
  text => expect(isUuid(text)).toBe(false),
)

test('formats refuse what only looks like them', () => {
  expect(formats['date-time']('2026-02-30T99:00:00Z')).toBe(false)
  expect(formats.bytes('-1')).toBe(false)
  expect(formats.uri('not a uri')).toBe(false)
  expect(formats['date-time']('2026-02-03T04:05:06Z')).toBe(true)
})

test.each(['99999999999999999999', '2147483648', '0', '-1', '1e3', '1.5', ' 7', ''])(
  '%j is no number of a record',
  text => expect(wholeNumber(text)).toBeUndefined(),
)

test('numbers of records are read as they stand', () => {
  expect(wholeNumber('7')).toBe(7)
  expect(wholeNumber('2147483647')).toBe(2_147_483_647)
  expect(wholeNumber(undefined)).toBeUndefined()
})
