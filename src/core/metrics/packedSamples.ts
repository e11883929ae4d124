import { ByteReader, ByteWriter } from './Bytes'
import { bitsIn, writeBits } from './doubleBits'

/** Samples of one series, in the order of time. */
export interface Samples {
  /** Milliseconds since 1970, whole and ascending. */
  readonly times: ArrayLike<number>
  /** As many; NaN where nothing was measured. */
  readonly values: ArrayLike<number>
}

/**
 * How the values of a pack are written: as decimals of so many places, as the bits in which each differs from the one before, or, above
 * that, as whole multiples of a power of two: sizes come in blocks and extents.
 */
const asBits = 15
const mostPlaces = 9
const asBlocks = 16
const leastBlock = 3
const mostBlock = 47
/** Added where differences of differences are written: of what grows evenly they are short. */
const asSecond = 64
/** Scaled values and their differences stay whole within a double. */
const largestScaled = 2 ** 49
/** No series needs more in one pack; what claims more is no pack of ours. */
const mostSamples = 1_000_000

/**
 * Packs samples of one series: times as differences of differences, values as differences of scaled decimals where all of them are
 * decimals of at most nine places, else as the bytes in which each differs from the one before. Runs of the same difference are counted.
 * @returns bytes from which `unpackSamples` makes the very same numbers @throws {RangeError} for times out of order, and values that are infinite
 */
export function packSamples({ times, values }: Samples): Uint8Array {
  const count = times.length
  if (values.length !== count || count > mostSamples) throw new RangeError('Each sample has a time and a value.')
  const writer = new ByteWriter()
  writer.whole(count)
  if (count === 0) return writer.done()
  writeTimes(writer, times)
  const present = presentOf(values)
  const places = blockOf(present) ?? placesOf(present)
  if (places === asBits) {
    writer.byte(places)
    writeGaps(writer, values)
    writeBits(writer, present)
    return writer.done()
  }
  const first = differencesOf(present.map(value => Math.round(value * scaleOf(places))))
  const second = differencesOf(first)
  const isSecond = lengthOf(second) < lengthOf(first)
  writer.byte(isSecond ? places + asSecond : places)
  writeGaps(writer, values)
  writeDifferences(writer, isSecond ? second : first)
  return writer.done()
}

/** @throws {RangeError} for bytes that are no pack */
export function unpackSamples(bytes: Uint8Array): { readonly times: Float64Array; readonly values: Float64Array } {
  const reader = new ByteReader(bytes)
  const count = reader.whole()
  if (count > mostSamples) throw new RangeError('So many samples are in no pack.')
  const times = new Float64Array(count)
  const values = new Float64Array(count)
  if (count === 0) return { times, values }
  readTimes(reader, times)
  const places = reader.byte()
  const isGap = readGaps(reader, count)
  const isSecond = places >= asSecond
  const next = places === asBits ? bitsIn(reader) : scaledIn(reader, scaleOf(places % asSecond), isSecond)
  for (let at = 0; at < count; at += 1) values[at] = isGap(at) ? Number.NaN : next()
  return { times, values }
}

function presentOf(values: ArrayLike<number>): number[] {
  const present: number[] = []
  for (let at = 0; at < values.length; at += 1) {
    const value = values[at] ?? Number.NaN
    if (Number.isNaN(value)) continue
    if (!Number.isFinite(value)) throw new RangeError('An infinite value is no measurement.')
    present.push(value)
  }
  return present
}

/** By what values are multiplied to be whole. @throws {RangeError} for a byte that says nothing */
function scaleOf(places: number): number {
  if (places <= mostPlaces) return 10 ** places
  const block = places - asBlocks
  if (block < leastBlock || block > mostBlock) throw new RangeError('No values are written so.')
  return 2 ** -block
}

/** The largest power of two of which all values are whole multiples, as it is written; undefined where it is not worth it. */
function blockOf(values: readonly number[]): number | undefined {
  let block = mostBlock
  for (const value of values) {
    if (!Number.isInteger(value) || Object.is(value, -0)) return undefined
    while (block >= leastBlock && value % 2 ** block !== 0) block -= 1
    if (block < leastBlock) return undefined
  }
  return values.every(value => Math.abs(value) / 2 ** block <= largestScaled) ? asBlocks + block : undefined
}

/** The least number of decimal places in which every value is written exactly; `asBits` where none is. */
function placesOf(values: readonly number[]): number {
  let places = 0
  for (const value of values) {
    while (places <= mostPlaces && !isExact(value, 10 ** places)) places += 1
    if (places > mostPlaces) return asBits
  }
  // More places may take a value out of range that fewer did not.
  return values.every(value => isExact(value, 10 ** places)) ? places : asBits
}

function isExact(value: number, scale: number): boolean {
  const scaled = Math.round(value * scale)
  // Whole numbers know no negative zero: only its bits do.
  return Math.abs(scaled) <= largestScaled && scaled / scale === value && !Object.is(value, -0)
}

/** Writes differences of whole numbers: those near zero take a byte, and a run of zeros two. */
class DifferenceWriter {
  #zeros = 0

  constructor(private readonly writer: ByteWriter) {}

  push(difference: number): void {
    if (difference === 0) {
      this.#zeros += 1
      return
    }
    this.end()
    this.writer.signed(difference)
  }

  /** Writes the zeros that stand at the end. */
  end(): void {
    if (this.#zeros === 0) return
    this.writer.signed(0)
    this.writer.whole(this.#zeros - 1)
    this.#zeros = 0
  }
}

function differencesIn(reader: ByteReader): () => number {
  let zeros = 0
  return () => {
    if (zeros > 0) {
      zeros -= 1
      return 0
    }
    const difference = reader.signed()
    if (difference === 0) zeros = reader.whole()
    return difference
  }
}

function writeTimes(writer: ByteWriter, times: ArrayLike<number>): void {
  const differences = new DifferenceWriter(writer)
  let last = times[0] ?? 0
  let step = 0
  if (!Number.isInteger(last) || Math.abs(last) > largestScaled) throw new RangeError('A time is whole milliseconds.')
  writer.signed(last)
  for (let at = 1; at < times.length; at += 1) {
    const time = times[at] ?? Number.NaN
    if (!Number.isInteger(time) || time <= last || time > largestScaled)
      throw new RangeError('Times are whole milliseconds, each after the one before.')
    differences.push(time - last - step)
    step = time - last
    last = time
  }
  differences.end()
}

function readTimes(reader: ByteReader, times: Float64Array): void {
  let time = reader.signed()
  let step = 0
  times[0] = time
  const next = differencesIn(reader)
  for (let at = 1; at < times.length; at += 1) {
    step += next()
    time += step
    times[at] = time
  }
}

/** Where nothing was measured: how many gaps there are, then the distance of each from the one before. */
function writeGaps(writer: ByteWriter, values: ArrayLike<number>): void {
  const gaps: number[] = []
  for (let at = 0; at < values.length; at += 1) if (Number.isNaN(values[at])) gaps.push(at)
  writer.whole(gaps.length)
  gaps.forEach((at, index) => writer.whole(at - (gaps[index - 1] ?? -1) - 1))
}

function readGaps(reader: ByteReader, count: number): (at: number) => boolean {
  const length = reader.whole()
  if (length > count) throw new RangeError('There are more gaps than samples.')
  const gaps = new Set<number>()
  let last = -1
  for (let index = 0; index < length; index += 1) {
    last += reader.whole() + 1
    gaps.add(last)
  }
  return at => gaps.has(at)
}

const differencesOf = (values: readonly number[]) => values.map((value, index) => value - (values[index - 1] ?? 0))

/** About how many bytes differences take; runs of zeros next to nothing. */
const lengthOf = (differences: readonly number[]) =>
  differences.reduce((sum, each) => sum + (each === 0 ? 0.1 : Math.ceil((Math.log2(Math.abs(each)) + 2) / 7)), 0)

function writeDifferences(writer: ByteWriter, all: readonly number[]): void {
  const differences = new DifferenceWriter(writer)
  for (const each of all) differences.push(each)
  differences.end()
}

function scaledIn(reader: ByteReader, scale: number, isSecond: boolean): () => number {
  const next = differencesIn(reader)
  let scaled = 0
  let step = 0
  return () => {
    step = (isSecond ? step : 0) + next()
    scaled += step
    return scaled / scale
  }
}
