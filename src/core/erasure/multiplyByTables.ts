import { times } from './field'

/** Outputs that one pass computes: as many bytes as a machine word holds. */
const lanes = 4
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

/**
 * Multiplies by looking every byte up: what runs anywhere, and what the quick way is compared with.
 * @returns a piece for each row
 */
export function multiplyByTables(rows: readonly (readonly number[])[], inputs: readonly Uint8Array[]): Uint8Array[] {
  const tables = tablesFor(rows, inputs.length)
  const outputs = rows.length
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
