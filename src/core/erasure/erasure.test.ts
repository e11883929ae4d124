import fc from 'fast-check'
import { ErasureCode, PiecesUnlike, TooFewPieces, WidthRefused } from '.'
import { inverse, invert, times } from './field'
import { multiplyByKernel } from './multiply'
import { multiplyByTables } from './multiplyByTables'
import { blockBytes, kernel } from './wasmKernel'

/** The slow way: multiply by shifting, and reduce by the polynomial bit by bit. */
function shiftedProduct(a: number, b: number): number {
  let product = 0
  for (let bit = 0; bit < 8; bit += 1) if ((b >> bit) & 1) product ^= a << bit
  for (let bit = 15; bit >= 8; bit -= 1) if ((product >> bit) & 1) product ^= 0x11d << (bit - 8)
  return product
}

test('multiplying agrees with shifting and reducing, for every pair of bytes', () => {
  const all = Array.from({ length: 65_536 }, (_, pair) => [pair >> 8, pair & 255] as const)
  expect(all.filter(([a, b]) => times(a, b) !== shiftedProduct(a, b))).toEqual([])
})

test('every byte but 0 has an inverse', () => {
  for (let value = 1; value < 256; value += 1) expect(times(value, inverse(value))).toBe(1)
})

test('a matrix with two equal rows has no inverse', () => {
  expect(
    invert([
      [1, 2],
      [1, 2],
    ]),
  ).toBeUndefined()
})

const codes = fc.record({
  data: fc.integer({ min: 1, max: 10 }),
  parity: fc.integer({ min: 0, max: 6 }),
  length: fc.integer({ min: 0, max: 90 }),
  seed: fc.nat(),
})
const bytes = (seed: number, length: number) => {
  let state = seed
  return new Uint8Array(length).map(() => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) >>> 24)
}

test('any m pieces may be lost: all come back, byte for byte', () => {
  fc.assert(
    fc.property(codes, fc.infiniteStream(fc.nat()), ({ data, parity, length, seed }, order) => {
      const code = new ErasureCode(data, parity)
      const pieces = Array.from({ length: data }, (_, index) => bytes(seed + index, length))
      const all = [...pieces, ...code.encode(pieces)]
      const left: (Uint8Array | undefined)[] = [...all]
      for (let lost = 0; lost < parity; lost += 1) left[(order.next().value ?? 0) % left.length] = undefined
      expect(code.restore(left)).toEqual(all)
    }),
  )
})

test('every choice of lost pieces of 4+3 can be restored', () => {
  const code = new ErasureCode(4, 3)
  const data = [1, 2, 3, 4].map(seed => bytes(seed, 17))
  const all = [...data, ...code.encode(data)]
  for (let mask = 0; mask < 128; mask += 1) {
    const left = all.map((piece, index) => ((mask >> index) & 1 ? undefined : piece))
    const lost = left.filter(piece => piece === undefined).length
    if (lost <= 3) expect(code.restore(left)).toEqual(all)
    else expect(() => code.restore(left)).toThrow(TooFewPieces)
  }
})

test('one loss too many is said, never guessed', () => {
  const code = new ErasureCode(2, 1)
  const data = [bytes(1, 8), bytes(2, 8)]
  expect(() => code.restore([data[0], undefined, undefined])).toThrow(/1 pieces of the stripe are left, and it takes 2/)
})

test('torn pieces and impossible widths are refused', () => {
  expect(() => new ErasureCode(2, 1).encode([bytes(1, 8), bytes(2, 9)])).toThrow(PiecesUnlike)
  expect(() => new ErasureCode(2, 1).encode([bytes(1, 8)])).toThrow(TooFewPieces)
  expect(() => new ErasureCode(0, 2)).toThrow(WidthRefused)
  expect(() => new ErasureCode(200, 57)).toThrow(WidthRefused)
})

test('parity of one piece more than data is more than a copy: a changed byte changes every parity', () => {
  const code = new ErasureCode(3, 2)
  const data = [bytes(1, 4), bytes(2, 4), bytes(3, 4)]
  const before = code.encode(data)
  const changed = data.map((piece, at) =>
    at === 1 ? piece.map((value, index) => (index === 2 ? value ^ 1 : value)) : piece,
  )
  const after = code.encode(changed)
  before.forEach((piece, index) => expect(after[index]?.[2]).not.toBe(piece[2]))
})

describe('the kernel of vectors', () => {
  const quick = kernel()

  test('is to be had here', () => expect(quick).toBeDefined())

  test('gives byte for byte what looking up gives, for every width, length and coefficient', () => {
    if (quick === undefined) return
    const cases = fc.record({
      rows: fc.integer({ min: 0, max: 9 }),
      inputs: fc.integer({ min: 1, max: 12 }),
      length: fc.oneof(
        fc.integer({ min: 0, max: 70 }),
        fc.integer({ min: blockBytes - 20, max: blockBytes + 20 }),
        fc.constant(2 * blockBytes + 1),
      ),
      seed: fc.nat(),
    })
    fc.assert(
      fc.property(cases, ({ rows, inputs, length, seed }) => {
        const matrix = Array.from({ length: rows }, (_, row) => [...bytes(seed + row, inputs)])
        const pieces = Array.from({ length: inputs }, (_, index) => bytes(seed * 3 + index, length))
        // Compared as wholes: byte by byte the comparison would take longer than both ways together.
        const [one, other] = [multiplyByKernel(quick, matrix, pieces), multiplyByTables(matrix, pieces)]
        expect(one.length).toBe(other.length)
        expect(one.every((piece, row) => Buffer.from(piece).equals(other[row] ?? new Uint8Array()))).toBe(true)
      }),
      { numRuns: 300 },
    )
    const products = Array.from({ length: 256 }, (_, coefficient) => [coefficient])
    const every = Uint8Array.from({ length: 256 }, (_, value) => value)
    multiplyByKernel(quick, products, [every]).forEach((row, coefficient) =>
      expect([...row]).toEqual([...every].map(value => times(value, coefficient))),
    )
  })

  test('takes the widest code that there is', () => {
    if (quick === undefined) return
    const matrix = [0, 1, 2, 3].map(seed => [...bytes(seed, 256)])
    const pieces = Array.from({ length: 256 }, (_, index) => bytes(index, 100))
    expect(multiplyByKernel(quick, matrix, pieces)).toEqual(multiplyByTables(matrix, pieces))
  })
})
