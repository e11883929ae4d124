/** Writes whole numbers and bytes one after another into a buffer that grows. */
export class ByteWriter {
  #bytes = new Uint8Array(64)
  #length = 0

  byte(value: number): void {
    if (this.#length === this.#bytes.length) {
      const grown = new Uint8Array(this.#bytes.length * 2)
      grown.set(this.#bytes)
      this.#bytes = grown
    }
    this.#bytes[this.#length] = value
    this.#length += 1
  }

  /** Seven bits a byte, the low ones first. @param value whole, 0 to 2^53 − 1 */
  whole(value: number): void {
    let rest = value
    while (rest >= 128) {
      this.byte((rest % 128) + 128)
      rest = Math.floor(rest / 128)
    }
    this.byte(rest)
  }

  /** Of either sign: those near zero are short. @param value whole, less than 2^52 from zero */
  signed(value: number): void {
    this.whole(value < 0 ? -2 * value - 1 : 2 * value)
  }

  done(): Uint8Array {
    return this.#bytes.slice(0, this.#length)
  }
}

/** Reads what a `ByteWriter` has written. */
export class ByteReader {
  #at = 0

  constructor(private readonly bytes: Uint8Array) {}

  /** @throws {RangeError} at the end */
  byte(): number {
    const value = this.bytes[this.#at]
    if (value === undefined) throw new RangeError('The packed samples end too early.')
    this.#at += 1
    return value
  }

  /** @throws {RangeError} for more than a number can hold */
  whole(): number {
    let value = 0
    for (let scale = 1; scale <= 2 ** 49; scale *= 128) {
      const next = this.byte()
      value += (next % 128) * scale
      if (next < 128) return value
    }
    throw new RangeError('A packed number has no end.')
  }

  signed(): number {
    const value = this.whole()
    return value % 2 === 1 ? -(value + 1) / 2 : value / 2
  }
}
