import { quantile } from './quantile'

/** How far a running job was at a moment. */
export interface ProgressSample {
  readonly atSeconds: number
  readonly doneRatio: number
}

export interface RemainingTime {
  readonly p10Seconds: number
  readonly p50Seconds: number
  readonly p90Seconds: number
}

const tailFrom = 0.9
const halfLives = 4

/**
 * What is left of a running job, from recent progress: rates between samples weigh half as much for every quarter of the
 * observed span that they lie back. Never what is left divided by the mean since the start, which hides a slow-down.
 * @param samples in order of time, at least two with progress between them; else there is no answer yet
 * @param tailSlowdown how many times slower the last tenth ran in earlier jobs of the kind (≥ 1)
 * @returns seconds from the last sample
 */
export function forecastDuring(samples: readonly ProgressSample[], tailSlowdown = 1): RemainingTime | undefined {
  const first = samples[0]
  const last = samples.at(-1)
  if (
    first === undefined ||
    last === undefined ||
    last.atSeconds <= first.atSeconds ||
    last.doneRatio <= first.doneRatio
  )
    return undefined
  const halfLifeSeconds = (last.atSeconds - first.atSeconds) / halfLives
  let weightedRate = 0
  let weights = 0
  const rates: number[] = []
  const spaced = inWindows(samples)
  spaced.slice(1).forEach((sample, index) => {
    const before = spaced[index] ?? first
    const span = sample.atSeconds - before.atSeconds
    if (span <= 0) return
    // In the tail a job is expected to be slow; its rate is put back to that of the body, so that both speak of one thing.
    const rate = ((sample.doneRatio - before.doneRatio) / span) * (before.doneRatio >= tailFrom ? tailSlowdown : 1)
    const weight = span * 0.5 ** ((last.atSeconds - sample.atSeconds) / halfLifeSeconds)
    weightedRate += rate * weight
    weights += weight
    rates.push(rate)
  })
  const rate = weightedRate / weights
  if (!(rate > 0)) return undefined
  const body = Math.max(0, tailFrom - last.doneRatio)
  const tail = 1 - Math.max(tailFrom, last.doneRatio)
  const seconds = (body + tail * tailSlowdown) / rate
  const usual = rates.filter(value => value > 0)
  return {
    p10Seconds: seconds * Math.min(0.95, rate / Math.max(rate, quantile(usual, 0.9))),
    p50Seconds: seconds,
    p90Seconds: seconds * Math.max(1.08, rate / Math.min(rate, quantile(usual, 0.1))),
  }
}

const mostWindows = 8

/**
 * Samples that lie an eighth of the observed span apart. Systems tell whole per cents: from one to the next the rate is mostly
 * noise, and its spread would be taken for that of the job.
 */
function inWindows(samples: readonly ProgressSample[]): ProgressSample[] {
  const [first] = samples
  const last = samples.at(-1)
  if (first === undefined || last === undefined) return []
  const window = (last.atSeconds - first.atSeconds) / mostWindows
  const kept = [first]
  for (const sample of samples.slice(1)) {
    if (sample.atSeconds - (kept.at(-1)?.atSeconds ?? 0) >= window * 0.999) kept.push(sample)
  }
  if (kept.at(-1) !== last) kept.push(last)
  return kept
}
