import { PiecesUnlike, TooFewPieces, WidthRefused } from './errors'
import { inverse, invert } from './field'
import { multiply } from './multiply'

/**
 * A systematic Reed–Solomon code over GF(2⁸): k data pieces as they are and m parity pieces, of which any k restore all.
 * The parity rows are a Cauchy matrix, every square part of which can be inverted.
 * @see Blömer et al. 1995, "An XOR-based erasure-resilient coding scheme", for the matrix
 */
export class ErasureCode {
  readonly #parityRows: readonly (readonly number[])[]

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
  }

  /** Computes the parity of k data pieces of one length. @returns m pieces of that length */
  encode(data: readonly Uint8Array[]): Uint8Array[] {
    this.#sameLength(data)
    if (data.length !== this.dataPieces) throw new TooFewPieces(data.length, this.dataPieces)
    return multiply(this.#parityRows, data)
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
    const parity = multiply(rows, data)
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
      lost.map(index => inverted[index] ?? []),
      used.map(each => each.piece),
    )
    return range(this.dataPieces).map(index => pieces[index] ?? restored[lost.indexOf(index)] ?? new Uint8Array())
  }

  #sameLength(pieces: readonly Uint8Array[]): void {
    const [first] = pieces
    if (pieces.some(piece => piece.length !== first?.length)) throw new PiecesUnlike()
  }
}

const range = (count: number) => Array.from({ length: count }, (_, index) => index)
