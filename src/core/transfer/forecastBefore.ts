import { missRange } from './missRange'

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
 * Spread of the logarithm of actual ÷ base that is assumed until a kind of job has run: what waits for requests depends on the machine and
 * the network, what moves bytes on rates that are known.
 */
const untriedSpread = { requests: 0.2, bytes: 0.1 }
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
  const range = missRange(learned, bytes === 0n ? untriedSpread.requests : untriedSpread.bytes)
  return {
    baseSeconds: seconds,
    p10Seconds: seconds * range.p10,
    p50Seconds: seconds * range.p50,
    p90Seconds: seconds * range.p90,
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
