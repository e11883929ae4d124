import { quantile } from './quantile'

/** When a job will end: P10, P50 and P90 of its length in seconds, and what the range rests on. */
export interface Forecast {
  /** Bytes ÷ rate and overhead alone, before anything was learned: what later misses are measured against. */
  readonly baseSeconds: number
  readonly p10Seconds: number
  readonly p50Seconds: number
  readonly p90Seconds: number
  /** The part that sets the pace, such as `drives` or `network`. */
  readonly boundBy: string
  /** Earlier jobs of the kind whose misses shaped the range (count). */
  readonly learnedFrom: number
}

/** A part that all of the job's bytes must pass. */
export interface SharedPart {
  readonly name: string
  readonly bytesPerSecond: number
  /** What hosts use of it at that hour of the week (0 to 1). */
  readonly busyRatio?: number
}

/**
 * Until a kind of job has run often enough, its range is this guess; each earlier run outweighs one of its points.
 * Actual ÷ base.
 */
const untriedMisses: readonly number[] = [0.85, 0.95, 1, 1.1, 1.35]
const remembered = 50

/**
 * Forecast before a job starts: bytes ÷ what the slowest shared part can give, spread by how earlier jobs of the kind missed.
 * @param bytes to move or write; 0 for a job of settled length
 * @param parts what the bytes pass; at least one with a rate above 0, else the forecast is endless
 * @param overheadSeconds what is spent besides moving bytes
 * @param pastMisses actual ÷ base seconds of earlier jobs of the kind, latest last
 */
export function forecastBefore(
  bytes: bigint,
  parts: readonly SharedPart[],
  overheadSeconds: number,
  pastMisses: readonly number[],
): Forecast {
  const offered = parts.map(part => ({ name: part.name, rate: part.bytesPerSecond * (1 - (part.busyRatio ?? 0)) }))
  const slowest = offered.reduce((least, part) => (part.rate < least.rate ? part : least), {
    name: 'requests',
    rate: Infinity,
  })
  const seconds = overheadSeconds + (bytes === 0n ? 0 : Number(bytes) / slowest.rate)
  const learned = pastMisses.filter(miss => Number.isFinite(miss) && miss > 0).slice(-remembered)
  const misses = [
    ...untriedMisses.slice(0, Math.max(0, untriedMisses.length - Math.floor(learned.length / 2))),
    ...learned,
  ]
  return {
    baseSeconds: seconds,
    p10Seconds: seconds * quantile(misses, 0.1),
    p50Seconds: seconds * quantile(misses, 0.5),
    p90Seconds: seconds * quantile(misses, 0.9),
    boundBy: bytes === 0n ? 'requests' : slowest.name,
    learnedFrom: learned.length,
  }
}

/** Forecasts of steps that follow each other. Ranges are added end by end: steps of one change tend to miss together. */
export function inSequence(forecasts: readonly Forecast[]): Forecast {
  const longest = forecasts.reduce<Forecast | undefined>(
    (most, forecast) => (most === undefined || forecast.p50Seconds > most.p50Seconds ? forecast : most),
    undefined,
  )
  const sum = (pick: (forecast: Forecast) => number) => forecasts.reduce((total, forecast) => total + pick(forecast), 0)
  return {
    baseSeconds: sum(forecast => forecast.baseSeconds),
    p10Seconds: sum(forecast => forecast.p10Seconds),
    p50Seconds: sum(forecast => forecast.p50Seconds),
    p90Seconds: sum(forecast => forecast.p90Seconds),
    boundBy: longest?.boundBy ?? 'requests',
    learnedFrom: Math.min(...forecasts.map(forecast => forecast.learnedFrom)),
  }
}
