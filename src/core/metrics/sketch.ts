import { ByteReader, ByteWriter } from './Bytes'

/** How far a quantile may lie from the true one, as a part of it. */
export const sketchError = 0.01
const gamma = (1 + sketchError) / (1 - sketchError)
const logGamma = Math.log(gamma)
/** What is smaller counts as nothing: a nanosecond, a byte in a billion seconds. */
const least = 1e-9

/**
 * How often values of each size came, sizes growing by two hundredths: quantiles of it are right to a hundredth, and those of several
 * merged are as right as if all had gone into one. Values are not negative.
 */
export class Sketch {
  #nothing = 0
  readonly #counts = new Map<number, number>()

  get count(): number {
    let sum = this.#nothing
    for (const count of this.#counts.values()) sum += count
    return sum
  }

  add(value: number, count = 1): void {
    if (value < least) this.#nothing += count
    else this.#put(Math.ceil(Math.log(value) / logGamma), count)
  }

  merge(other: Sketch): void {
    this.#nothing += other.#nothing
    for (const [index, count] of other.#counts) this.#put(index, count)
  }

  /** @param rank 0 to 1 @returns undefined where nothing has come */
  quantile(rank: number): number | undefined {
    const count = this.count
    if (count === 0) return undefined
    let left = Math.floor(rank * (count - 1)) - this.#nothing
    if (left < 0) return 0
    for (const index of [...this.#counts.keys()].sort((a, b) => a - b)) {
      left -= this.#counts.get(index) ?? 0
      if (left < 0) return (2 * gamma ** index) / (gamma + 1)
    }
    return undefined
  }

  #put(index: number, count: number): void {
    this.#counts.set(index, (this.#counts.get(index) ?? 0) + count)
  }

  packed(): Uint8Array {
    const writer = new ByteWriter()
    const sorted = [...this.#counts].sort(([a], [b]) => a - b)
    writer.whole(this.#nothing)
    writer.whole(sorted.length)
    let last = 0
    for (const [index, count] of sorted) {
      writer.signed(index - last)
      writer.whole(count)
      last = index
    }
    return writer.done()
  }

  /** @throws {RangeError} for bytes that are no sketch */
  static unpacked(bytes: Uint8Array): Sketch {
    const reader = new ByteReader(bytes)
    const sketch = new Sketch()
    sketch.#nothing = reader.whole()
    let index = 0
    for (let left = reader.whole(); left > 0; left -= 1) {
      index += reader.signed()
      sketch.#put(index, reader.whole())
    }
    return sketch
  }
}
