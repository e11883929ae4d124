import { PiecesUnlike, TooFewPieces, WidthRefused } from './errors'
import { inverse, invert, times } from './field'

/** Outputs that one pass computes: as many bytes as a machine word holds. */
const lanes = 4

/**
 * A systematic Reed–Solomon code over GF(2⁸): k data pieces as they are and m parity pieces, of which any k restore all.
 * The parity rows are a Cauchy matrix, every square part of which can be inverted.
 * @see Blömer et al. 1995, "An XOR-based erasure-resilient coding scheme", for the matrix
 */
export class ErasureCode {
  readonly #parityRows: readonly (readonly number[])[]
  readonly #parityTables: readonly Uint32Array[][]

  /** @throws {WidthRefused} unless k ≥ 1, m ≥ 0 and k + m ≤ 256 */
  constructor(
    readonly dataPieces: number,
    readonly parityPieces: number,
  ) {
    if (!(dataPieces >= 1 && parityPieces >= 0 && dataPieces + parityPieces <= 256))
      throw new WidthRefused(dataPieces, parityPieces)
    this.#parityRows = range(parityPieces).map(row =>
      range(dataPieces).map(column => inverse((dataPieces + row) ^ column)),
    )
    this.#parityTables = tablesFor(this.#parityRows, dataPieces)
  }

  /** Computes the parity of k data pieces of one length. @returns m pieces of that length */
  encode(data: readonly Uint8Array[]): Uint8Array[] {
    this.#sameLength(data)
    if (data.length !== this.dataPieces) throw new TooFewPieces(data.length, this.dataPieces)
    return multiply(this.#parityTables, data, this.parityPieces)
  }

  /**
   * Restores what is missing.
   * @param pieces k data pieces, then m parity pieces; undefined where one is lost
   * @returns all k + m pieces; those that were given are the same objects
   * @throws {TooFewPieces} where fewer than k are given: nothing is guessed
   */
  restore(pieces: readonly (Uint8Array | undefined)[]): Uint8Array[] {
    const present = pieces.flatMap((piece, index) => (piece === undefined ? [] : [{ piece, index }]))
    if (present.length < this.dataPieces) throw new TooFewPieces(present.length, this.dataPieces)
    const used = present.slice(0, this.dataPieces)
    this.#sameLength(present.map(each => each.piece))
    const data = this.#dataFrom(pieces, used)
    const lostParity = range(this.parityPieces).filter(row => pieces[this.dataPieces + row] === undefined)
    const rows = lostParity.map(row => this.#parityRows[row] ?? [])
    const parity = multiply(tablesFor(rows, this.dataPieces), data, rows.length)
    return [
      ...data,
      ...range(this.parityPieces).map(
        row => pieces[this.dataPieces + row] ?? parity[lostParity.indexOf(row)] ?? new Uint8Array(),
      ),
    ]
  }

  #dataFrom(
    pieces: readonly (Uint8Array | undefined)[],
    used: readonly { readonly piece: Uint8Array; readonly index: number }[],
  ): Uint8Array[] {
    const lost = range(this.dataPieces).filter(index => pieces[index] === undefined)
    if (lost.length === 0) return range(this.dataPieces).map(index => pieces[index] ?? new Uint8Array())
    const matrix = used.map(({ index }) =>
      index < this.dataPieces
        ? range(this.dataPieces).map(column => (column === index ? 1 : 0))
        : [...(this.#parityRows[index - this.dataPieces] ?? [])],
    )
    const inverted = invert(matrix) ?? []
    const restored = multiply(
      tablesFor(
        lost.map(index => inverted[index] ?? []),
        this.dataPieces,
      ),
      used.map(each => each.piece),
      lost.length,
    )
    return range(this.dataPieces).map(index => pieces[index] ?? restored[lost.indexOf(index)] ?? new Uint8Array())
  }

  #sameLength(pieces: readonly Uint8Array[]): void {
    const [first] = pieces
    if (pieces.some(piece => piece.length !== first?.length)) throw new PiecesUnlike()
  }
}

const range = (count: number) => Array.from({ length: count }, (_, index) => index)

/** For each four rows and each input a table: a byte looked up gives its part of four outputs at once. */
function tablesFor(rows: readonly (readonly number[])[], inputs: number): Uint32Array[][] {
  return range(Math.ceil(rows.length / lanes)).map(group =>
    range(inputs).map(input => {
      const table = new Uint32Array(256)
      for (let value = 0; value < 256; value += 1) {
        let packed = 0
        for (let lane = 0; lane < lanes; lane += 1)
          packed |= times(value, rows[group * lanes + lane]?.[input] ?? 0) << (8 * lane)
        table[value] = packed >>> 0
      }
      return table
    }),
  )
}

/** Bytes whose sums stay in the processor's nearest cache. */
const blockBytes = 4096

function multiply(tables: readonly Uint32Array[][], inputs: readonly Uint8Array[], outputs: number): Uint8Array[] {
  const length = inputs[0]?.length ?? 0
  const results = range(outputs).map(() => new Uint8Array(length))
  const sums = new Uint32Array(blockBytes)
  tables.forEach((group, index) => {
    const own = results.slice(index * lanes, index * lanes + lanes)
    for (let from = 0; from < length; from += blockBytes) {
      const to = Math.min(length, from + blockBytes)
      sums.fill(0)
      for (let input = 0; input < group.length; input += 4) addFour(sums, group, inputs, input, from, to)
      own.forEach((result, lane) => takeLane(sums, lane, result, from, to))
    }
  })
  return results
}

const noTable = new Uint32Array(256)

/** Four inputs at a time: one read and one write of a sum then serve four lookups. */
function addFour(
  sums: Uint32Array,
  group: readonly Uint32Array[],
  inputs: readonly Uint8Array[],
  first: number,
  from: number,
  to: number,
): void {
  const a = group[first] ?? noTable
  const b = group[first + 1] ?? noTable
  const c = group[first + 2] ?? noTable
  const d = group[first + 3] ?? noTable
  const own = inputs[first] ?? new Uint8Array()
  const second = inputs[first + 1] ?? own
  const third = inputs[first + 2] ?? own
  const fourth = inputs[first + 3] ?? own
  for (let at = from; at < to; at += 1) {
    sums[at - from] =
      (sums[at - from] as number) ^
      (a[own[at] as number] as number) ^
      (b[second[at] as number] as number) ^
      (c[third[at] as number] as number) ^
      (d[fourth[at] as number] as number)
  }
}

function takeLane(sums: Uint32Array, lane: number, into: Uint8Array, from: number, to: number): void {
  const shift = 8 * lane
  for (let at = from; at < to; at += 1) into[at] = (sums[at - from] as number) >>> shift
}
