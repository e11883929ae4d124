const sharesOfTime = 96
const rounds = 24
const nearOne = 1 - 1e-9
const always = 1e9

/**
 * By how much each domain's weight has to be raised or lowered so that, when the best `width` of all are taken, a domain is
 * among them as often as its usable chunks ask for. Plain weights favour small domains as soon as several are taken at once.
 * @param chunksByDomain whole chunks (count, ≥ 0)
 * @returns a factor on the rate of each domain; 1 where all are alike
 */
export function inclusionMultipliers(chunksByDomain: readonly number[], width: number): number[] {
  const usable = usableChunks(chunksByDomain, width)
  const total = usable.reduce((sum, chunks) => sum + chunks, 0)
  const wanted = usable.map(chunks => (total === 0 ? 0 : (width * chunks) / total))
  const distinct = [...new Set(chunksByDomain.filter(chunks => chunks > 0))]
  if (distinct.length < 2 || chunksByDomain.filter(chunks => chunks > 0).length === width) return wanted.map(() => 1)
  // Of domains that hold the same, one is computed and stands for all.
  const byWanted = new Map<number, number[]>()
  wanted.forEach((share, index) => byWanted.set(share, [...(byWanted.get(share) ?? []), index]))
  const rates = wanted.map(share => (share >= nearOne ? always : -Math.log1p(-share)))
  for (let round = 0; round < rounds; round += 1) {
    let worst = 0
    const seen = new Map([...byWanted].map(([share, [first = 0]]) => [share, inclusion(rates, first, width)]))
    for (const [share, own] of byWanted) {
      if (share <= 0 || share >= nearOne) continue
      const now = Math.min(nearOne, Math.max(1e-12, seen.get(share) ?? 0))
      worst = Math.max(worst, Math.abs(now / share - 1))
      const factor = Math.log1p(-share) / Math.log1p(-now)
      for (const index of own) rates[index] = (rates[index] ?? 0) * factor
    }
    if (worst < 1e-4) break
  }
  const scale = rates.reduce((sum, rate) => (rate < always ? sum + rate : sum), 0) / Math.max(1, total)
  return rates.map((rate, index) => {
    const chunks = chunksByDomain[index] ?? 0
    return chunks === 0 || scale === 0 ? 1 : rate / scale / chunks
  })
}

/** What a domain can hold of stripes that take one piece of each of `width` domains: the rest of a large domain is stranded. */
export function usableChunks(chunksByDomain: readonly number[], width: number): number[] {
  const total = chunksByDomain.reduce((sum, chunks) => sum + chunks, 0)
  let low = 0
  let high = total / width
  for (let step = 0; step < 60; step += 1) {
    const middle = (low + high) / 2
    const placed = chunksByDomain.reduce((sum, chunks) => sum + Math.min(chunks, middle), 0)
    if (placed >= width * middle) low = middle
    else high = middle
  }
  return chunksByDomain.map(chunks => Math.min(chunks, low))
}

/** How often one of racing exponentials is among the first `width`: integrated over the time at which it arrives. */
function inclusion(rates: readonly number[], index: number, width: number): number {
  const own = rates[index] ?? 0
  if (own === 0) return 0
  let sum = 0
  for (let part = 0; part < sharesOfTime; part += 1) {
    const time = -Math.log1p(-(part + 0.5) / sharesOfTime) / own
    sum += fewerThan(rates, index, time, width)
  }
  return sum / sharesOfTime
}

/** Probability that fewer than `width` of the others have arrived by a time (Poisson binomial, by convolution). */
function fewerThan(rates: readonly number[], without: number, time: number, width: number): number {
  const chance = new Float64Array(width)
  chance[0] = 1
  rates.forEach((rate, index) => {
    if (index === without || rate === 0) return
    const arrived = -Math.expm1(-rate * time)
    for (let count = width - 1; count >= 0; count -= 1) {
      chance[count] =
        (chance[count] as number) * (1 - arrived) + (count > 0 ? (chance[count - 1] as number) * arrived : 0)
    }
  })
  return chance.reduce((sum, each) => sum + each, 0)
}
