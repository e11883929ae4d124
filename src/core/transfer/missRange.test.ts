import { missRange } from './missRange'

/** A small generator with a seed, so that the test says the same each time. Source: Marsaglia, xorshift. */
function normals(seed: number): () => number {
  let state = seed
  const uniform = () => {
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    return ((state >>> 0) + 0.5) / 2 ** 32
  }
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
}

test.each([0, 1, 3, 10, 50])('after %i jobs, four of five that follow lie in the range', count => {
  const next = normals(20_260 + count)
  const trials = 6000
  let hits = 0
  for (let trial = 0; trial < trials; trial += 1) {
    // Kinds differ by a bias that nobody knows before, and jobs of a kind by their own spread.
    const bias = 0.5 * next()
    const miss = () => Math.exp(bias + 0.25 * next())
    const { p10, p90 } = missRange(Array.from({ length: count }, miss), 0.25)
    const actual = miss()
    if (p10 <= actual && actual <= p90) hits += 1
  }
  expect(hits / trials).toBeGreaterThan(0.75)
  // One job says nothing of the spread yet, which is then a guess, and the range allows for that.
  expect(hits / trials).toBeLessThan(count < 2 ? 0.9 : 0.86)
})

test('jobs that always miss alike narrow the range about their miss', () => {
  const few = missRange([1.5, 1.5], 0.1)
  const many = missRange(
    Array.from({ length: 50 }, () => 1.5),
    0.1,
  )
  expect(many.p90 - many.p10).toBeLessThan((few.p90 - few.p10) / 2)
  expect(many.p50).toBeCloseTo(1.5, 1)
  expect(many.p10).toBeLessThan(1.5)
  expect(many.p90).toBeGreaterThan(1.5)
})
