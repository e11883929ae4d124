import {
  below,
  bytesOfModule,
  constant,
  every,
  functionBody,
  get,
  i32,
  load,
  range,
  repeat,
  set,
  step,
  store,
  v128,
  vector,
} from '../wasm'
import { times } from './field'

const swizzle = vector(0x0e)
const and = vector(0x4e)
const xor = vector(0x51)
/** Of eight numbers of 16 bits: processors know no shift of single bytes, and what comes in from the neighbour is masked away. */
const shiftRight = vector(0x8d)

/** Bytes of each piece that are worked on at once: eleven pieces of a stripe stay in the second cache, and copying has few beginnings. */
export const blockBytes = 8192
/** Outputs that one pass computes, each in a register of its own. */
export const rowsAtOnce = 4
const mostInputs = 256
const columnBytes = 16
/** Columns that share one look at the tables. */
const columns = 2

const tablesAt = 0
const inputsAt = 0x10000
const outputsAt = inputsAt + mostInputs * blockBytes
const pages = Math.ceil((outputsAt + rowsAtOnce * blockBytes) / 0x10000)

/** Multiplies blocks that lie in its memory by a matrix; undefined where no such code can run. */
export interface Kernel {
  readonly memory: Uint8Array
  /** @param rows 1 to 4 @param bytes of each block, rounded up to whole columns by the caller */
  readonly run: (rows: number, inputs: number, bytes: number) => void
}

export const inputAt = (index: number) => inputsAt + index * blockBytes
export const outputAt = (row: number) => outputsAt + row * blockBytes
/** How many bytes are worked on where so many are wanted. */
export const wholeColumns = (bytes: number) => Math.ceil(bytes / (columnBytes * columns)) * columnBytes * columns

/**
 * Puts the products of each coefficient with all low and all high halves of a byte into the kernel's memory: 32 bytes a coefficient.
 * @see Plank, Greenan, Miller 2013, "Screaming fast Galois field arithmetic using Intel SIMD instructions", 4 (split tables)
 */
export function writeTables({ memory }: Kernel, rows: readonly (readonly number[])[], inputs: number): void {
  let at = tablesAt
  for (let input = 0; input < inputs; input += 1)
    for (const row of rows) {
      const coefficient = row[input] ?? 0
      for (let half = 0; half < 16; half += 1) {
        memory[at + half] = times(half, coefficient)
        memory[at + 16 + half] = times(half << 4, coefficient)
      }
      at += 32
    }
}

/** Makes the kernel; undefined where WebAssembly or its vectors are not to be had, or a policy forbids them. */
export function kernel(): Kernel | undefined {
  try {
    const { exports } = new WebAssembly.Instance(new WebAssembly.Module(moduleBytes()))
    const kernels = Array.from(
      { length: rowsAtOnce },
      (_, row) => exports[`rows${row + 1}`] as (inputs: number, bytes: number) => void,
    )
    return {
      memory: new Uint8Array((exports['memory'] as WebAssembly.Memory).buffer),
      run: (rows, inputs, bytes) => kernels[rows - 1]?.(inputs, bytes),
    }
  } catch {
    return undefined
  }
}

/** Parameters, then locals, by number. */
const local = {
  inputs: 0,
  bytes: 1,
  at: 2,
  left: 3,
  table: 4,
  input: 5,
  low: 6,
  high: 6 + columns,
  products: 6 + 2 * columns,
}
const sumOf = (row: number, column: number) => 7 + 2 * columns + row * columns + column

/** One half of one output: what its table says of that half of the input's bytes is added to the sum of each column. */
const addProducts = (row: number, half: 'low' | 'high') => [
  ...get(local.table),
  ...load(tablesAt + 32 * row + (half === 'low' ? 0 : 16)),
  ...set(local.products),
  ...range(columns).flatMap(column => [
    ...get(sumOf(row, column)),
    ...get(local.products),
    ...get(local[half] + column),
    ...swizzle,
    ...xor,
    ...set(sumOf(row, column)),
  ]),
]

/** The two halves of each byte of a column of an input. */
const split = (column: number) => [
  ...get(local.input),
  ...load(inputsAt + columnBytes * column),
  ...set(local.high + column),
  ...get(local.high + column),
  ...every(0x0f),
  ...and,
  ...set(local.low + column),
  ...get(local.high + column),
  ...constant(4),
  ...shiftRight,
  ...every(0x0f),
  ...and,
  ...set(local.high + column),
]

function kernelBody(rows: number): number[] {
  const sums = range(rows).flatMap(row => range(columns).map(column => [row, column] as const))
  const code = [
    ...repeat([
      ...sums.flatMap(([row, column]) => [...every(0), ...set(sumOf(row, column))]),
      ...[...get(local.inputs), ...set(local.left), ...constant(0), ...set(local.table)],
      ...[...get(local.at), ...set(local.input)],
      ...repeat([
        ...range(columns).flatMap(split),
        ...range(rows).flatMap(row => [...addProducts(row, 'low'), ...addProducts(row, 'high')]),
        ...step(local.table, 32 * rows),
        ...step(local.input, blockBytes),
        ...step(local.left, -1),
        ...get(local.left),
      ]),
      ...sums.flatMap(([row, column]) => [
        ...get(local.at),
        ...get(sumOf(row, column)),
        ...store(outputAt(row) + columnBytes * column),
      ]),
      ...step(local.at, columnBytes * columns),
      ...[...get(local.at), ...get(local.bytes), ...below],
    ]),
  ]
  return functionBody(
    [
      [4, i32],
      [1 + 2 * columns + rows * columns, v128],
    ],
    code,
  )
}

const moduleBytes = () =>
  bytesOfModule(
    pages,
    range(rowsAtOnce).map(row => ({ name: `rows${row + 1}`, parameters: 2, body: kernelBody(row + 1) })),
  )
