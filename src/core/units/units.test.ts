import fc from 'fast-check'
import {
  bytesInWords,
  countAtStart,
  countWords,
  formatBytes,
  formatSeconds,
  formatSecondsRange,
  oddsInWords,
  parseBytes,
  tebibytes,
} from '.'

test.each([
  [0n, '0 B'],
  [1023n, '1,023 B'],
  [1024n, '1 KiB'],
  [1536n, '1.5 KiB'],
  [7_681_501_126_656n, '6.99 TiB'],
  [1024n ** 4n - 1n, '1 TiB'],
  [-(4n * 1024n ** 3n), '−4 GiB'],
  [1024n ** 6n * 5000n, '5,000 EiB'],
])('%s bytes read %s', (bytes, text) => expect(formatBytes(bytes)).toBe(text))

test('decimal family uses SI names', () => expect(formatBytes(7_680_000_000_000n, 'decimal')).toBe('7.68 TB'))

test('says when it has rounded, and keeps the exact figure', () => {
  expect(bytesInWords(1025n)).toEqual({ text: '1 KiB', exact: '1,025 B', isRounded: true })
  expect(bytesInWords(2048n).isRounded).toBe(false)
})

test('what is shown is read back within the rounding that it admits', () => {
  fc.assert(
    fc.property(fc.bigInt(0n, 2n ** 78n), fc.constantFrom('binary' as const, 'decimal' as const), (bytes, family) => {
      const words = bytesInWords(bytes, family)
      const back = parseBytes(words.text)
      const exact = parseBytes(words.exact)
      if (!('bytes' in back) || !('bytes' in exact)) return false
      const off = back.bytes > bytes ? back.bytes - bytes : bytes - back.bytes
      return exact.bytes === bytes && (words.isRounded ? off * 100n <= bytes : off === 0n)
    }),
  )
})

test.each([
  ['4 GiB', 4n * 1024n ** 3n],
  ['4GB', 4_000_000_000n],
  ['1.5 TiB', (3n * 1024n ** 4n) / 2n],
  ['1,024 mib', 1024n ** 3n],
  ['10 B', 10n],
  ['9007199254740993 B', 9007199254740993n],
])('%s is read exactly', (text, bytes) => expect(parseBytes(text)).toEqual({ bytes }))

test.each([
  ['4', 'size-unit'],
  ['4 G', 'size-unit'],
  ['4 QiB', 'size-unit'],
  ['', 'size-empty'],
  ['-4 GiB', 'size-number'],
  ['four GiB', 'size-number'],
  ['1e3 GiB', 'size-number'],
  ['0.5 B', 'size-whole'],
  [`${'9'.repeat(40)} TiB`, 'size-range'],
])('%s is refused by the rule %s', (text, rule) => expect(parseBytes(text)).toMatchObject({ rule }))

test('time reads in at most two units', () => {
  expect([0.2, 45, 600, 10_200, 273_600].map(formatSeconds)).toEqual([
    'under 1 s',
    '45 s',
    '10 min',
    '2 h 50 min',
    '3 days 4 h',
  ])
  expect(formatSecondsRange(10_200, 15_000)).toBe('2 h 50 min to 4 h 10 min')
  expect(formatSecondsRange(10, 10.2)).toBe('10 s')
})

test('odds read as words', () => {
  expect(oddsInWords(2.5e-8)).toBe('about 1 in 40 million')
  expect(oddsInWords(1e-18)).toBe('about 1 in 1 quintillion')
  expect(oddsInWords(0.25)).toBe('about 25 in 100')
  expect(oddsInWords(0)).toBe('not computable')
})

test('a column in tebibytes keeps one unit', () => expect(tebibytes(1649267441664n)).toBe('1.5'))

test('small numbers are words, large ones are figures', () => {
  expect([
    countWords(0, 'pool', 'pools'),
    countAtStart(1, 'pool', 'pools'),
    countWords(1204, 'volume', 'volumes'),
  ]).toEqual(['no pools', 'One pool', '1,204 volumes'])
})
