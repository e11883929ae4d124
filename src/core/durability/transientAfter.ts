const taylorTerms = 18

/**
 * Probability that a birth–death chain with one absorbing end has reached it, starting from state 0.
 * The exponential of the generator is made by uniformisation over a short span and repeated squaring. All entries stay
 * non-negative, so no digits cancel; each row is scaled back to sum 1 after every squaring, since otherwise a rounding
 * error of the row sums would double each time and reach 1e-8 when rates lie 10^12 apart.
 * @param worse rates from state i to i + 1, the last into the absorbing state (per hour)
 * @param better rates from state i to i − 1 (per hour; the first is not used)
 * @see Xue & Ye 2013, entrywise relatively accurate exponentials of essentially non-negative matrices
 */
export function transientAfter(worse: readonly number[], better: readonly number[], hours: number): number {
  const size = worse.length + 1
  const fastest = worse.reduce((most, rate, state) => Math.max(most, rate + (better[state] ?? 0)), 0)
  if (fastest === 0 || hours <= 0) return 0
  const squarings = Math.max(0, Math.ceil(Math.log2(fastest * hours * 2)))
  let power = seriesOf(jumpsOf(worse, better, fastest), (fastest * hours) / 2 ** squarings, size)
  let spare = new Float64Array(size * size)
  for (let round = 0; round < squarings; round += 1) {
    square(power, spare, size)
    const next = spare
    spare = power
    power = next
  }
  return power[size - 1] ?? 0
}

/** I + Q ÷ fastest: the chain seen at the beats of a Poisson clock; what leads down, stays and leads up from each state. */
interface Jumps {
  readonly down: Float64Array
  readonly stay: Float64Array
  readonly up: Float64Array
}

function jumpsOf(worse: readonly number[], better: readonly number[], fastest: number): Jumps {
  const size = worse.length + 1
  const jumps = { down: new Float64Array(size), stay: new Float64Array(size), up: new Float64Array(size) }
  worse.forEach((rate, state) => {
    const back = state > 0 ? (better[state] ?? 0) : 0
    jumps.up[state] = rate / fastest
    jumps.down[state] = back / fastest
    jumps.stay[state] = Math.max(0, (fastest - rate - back) / fastest)
  })
  jumps.stay[size - 1] = 1
  return jumps
}

/** e^(−x) Σ xᵏ/k! · jumpᵏ for x ≤ ½, where eighteen terms reach the last bit; a jump leads to neighbours only, so a product is three terms. */
function seriesOf({ down, stay, up }: Jumps, events: number, size: number): Float64Array<ArrayBuffer> {
  const sum = new Float64Array(size * size)
  let term = new Float64Array(size)
  let next = new Float64Array(size)
  for (let row = 0; row < size; row += 1) {
    term.fill(0)
    term[row] = 1
    sum[row * size + row] = 1
    for (let order = 1; order <= taylorTerms; order += 1) {
      const weight = events / order
      for (let state = 0; state < size; state += 1) {
        const reached =
          (term[state] ?? 0) * (stay[state] ?? 0) +
          (term[state - 1] ?? 0) * (up[state - 1] ?? 0) +
          (term[state + 1] ?? 0) * (down[state + 1] ?? 0)
        next[state] = reached * weight
        sum[row * size + state] = (sum[row * size + state] ?? 0) + reached * weight
      }
      const spare = term
      term = next
      next = spare
    }
    toUnitRow(sum, row, size)
  }
  return sum
}

function square(matrix: Float64Array, result: Float64Array, size: number): void {
  for (let row = 0; row < size; row += 1) {
    const from = row * size
    for (let column = 0; column < size; column += 1) {
      let sum = 0
      for (let inner = 0; inner < size; inner += 1)
        sum += (matrix[from + inner] ?? 0) * (matrix[inner * size + column] ?? 0)
      result[from + column] = sum
    }
    toUnitRow(result, row, size)
  }
}

function toUnitRow(matrix: Float64Array, row: number, size: number): void {
  let sum = 0
  for (let at = row * size; at < (row + 1) * size; at += 1) sum += matrix[at] ?? 0
  for (let at = row * size; at < (row + 1) * size; at += 1) matrix[at] = (matrix[at] ?? 0) / sum
}
