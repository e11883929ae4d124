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
  const spanEvents = (fastest * hours) / 2 ** squarings
  let power = seriesOf(jumpMatrix(worse, better, fastest, size), spanEvents, size)
  for (let round = 0; round < squarings; round += 1) power = withUnitRows(product(power, power, size), size)
  return power[size - 1] ?? 0
}

/** I + Q ÷ fastest: the chain seen at the beats of a Poisson clock. */
function jumpMatrix(worse: readonly number[], better: readonly number[], fastest: number, size: number): Float64Array {
  const jump = new Float64Array(size * size)
  worse.forEach((rate, state) => {
    const back = state > 0 ? (better[state] ?? 0) : 0
    jump[state * size + state + 1] = rate / fastest
    if (state > 0) jump[state * size + state - 1] = back / fastest
    jump[state * size + state] = Math.max(0, (fastest - rate - back) / fastest)
  })
  jump[size * size - 1] = 1
  return jump
}

/** e^(−x) Σ xᵏ/k! · jumpᵏ for x ≤ ½, where eighteen terms reach the last bit. */
function seriesOf(jump: Float64Array, events: number, size: number): Float64Array {
  let term = new Float64Array(size * size)
  for (let state = 0; state < size; state += 1) term[state * size + state] = 1
  const sum = Float64Array.from(term)
  for (let order = 1; order <= taylorTerms; order += 1) {
    term = product(term, jump, size).map(entry => (entry * events) / order)
    term.forEach((entry, index) => (sum[index] = (sum[index] ?? 0) + entry))
  }
  return withUnitRows(sum, size)
}

function product(left: Float64Array, right: Float64Array, size: number): Float64Array<ArrayBuffer> {
  const result = new Float64Array(size * size)
  for (let row = 0; row < size; row += 1) {
    for (let inner = 0; inner < size; inner += 1) {
      const factor = left[row * size + inner] ?? 0
      if (factor === 0) continue
      for (let column = 0; column < size; column += 1) {
        const at = row * size + column
        result[at] = (result[at] ?? 0) + factor * (right[inner * size + column] ?? 0)
      }
    }
  }
  return result
}

function withUnitRows(matrix: Float64Array<ArrayBuffer>, size: number): Float64Array<ArrayBuffer> {
  for (let row = 0; row < size; row += 1) {
    let sum = 0
    for (let column = 0; column < size; column += 1) sum += matrix[row * size + column] ?? 0
    for (let column = 0; column < size; column += 1)
      matrix[row * size + column] = (matrix[row * size + column] ?? 0) / sum
  }
  return matrix
}
