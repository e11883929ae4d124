import { multiplyByTables } from './multiplyByTables'
import { blockBytes, inputAt, kernel, outputAt, rowsAtOnce, wholeColumns, writeTables, type Kernel } from './wasmKernel'

/** Made once, at the first use; null where it cannot run here. */
let made: Kernel | null | undefined
const ours = (): Kernel | null => (made ??= kernel() ?? null)

/** Below this a call of the kernel costs more than it saves (bytes of a piece). */
const leastBytes = 64

/**
 * Multiplies pieces by a matrix over GF(2⁸).
 * @param rows for each piece that is wanted a coefficient for each piece that is given
 * @param inputs pieces of one length, at most 256 @returns a piece of that length for each row
 */
export function multiply(rows: readonly (readonly number[])[], inputs: readonly Uint8Array[]): Uint8Array[] {
  const quick = (inputs[0]?.length ?? 0) < leastBytes ? null : ours()
  return quick === null ? multiplyByTables(rows, inputs) : multiplyByKernel(quick, rows, inputs)
}

/** Multiplies block by block, four rows at a time. */
export function multiplyByKernel(
  quick: Kernel,
  rows: readonly (readonly number[])[],
  inputs: readonly Uint8Array[],
): Uint8Array[] {
  const length = inputs[0]?.length ?? 0
  const results = rows.map(() => new Uint8Array(length))
  if (inputs.length === 0) return results
  for (let first = 0; first < rows.length; first += rowsAtOnce) {
    const own = rows.slice(first, first + rowsAtOnce)
    writeTables(quick, own, inputs.length)
    for (let from = 0; from < length; from += blockBytes) {
      const to = Math.min(length, from + blockBytes)
      inputs.forEach((input, index) => quick.memory.set(input.subarray(from, to), inputAt(index)))
      quick.run(own.length, inputs.length, wholeColumns(to - from))
      own.forEach((_, row) =>
        results[first + row]?.set(quick.memory.subarray(outputAt(row), outputAt(row) + to - from), from),
      )
    }
  }
  return results
}
