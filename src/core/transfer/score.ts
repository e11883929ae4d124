import { quantile } from './quantile'

/** A job that has ended, with the forecast made for it; all in seconds. */
export interface ScoredJob {
  readonly p10: number
  readonly p50: number
  readonly p90: number
  readonly actual: number
}

export interface Score {
  /** Median of |P50 − actual| ÷ actual; null without jobs. */
  readonly medianAbsolutePercentageError: number | null
  /** Share of jobs that ended within P10–P90, both ends counted; should be 0.8. Null without jobs. */
  readonly coverage: number | null
}

/** How good forecasts were. */
export function score(jobs: readonly ScoredJob[]): Score {
  if (jobs.length === 0) return { medianAbsolutePercentageError: null, coverage: null }
  const errors = jobs.map(job => Math.abs(job.p50 - job.actual) / job.actual)
  const within = jobs.filter(job => job.p10 <= job.actual && job.actual <= job.p90)
  return { medianAbsolutePercentageError: quantile(errors, 0.5), coverage: within.length / jobs.length }
}

/** What takes less, and was to take less, is done while one looks at it: nobody plans by its forecast (seconds). */
const plannedBySeconds = 10

/** Of jobs that have ended those whose forecast somebody could have planned by: that took some time, or were to take it. */
export const plannedBy = <Job extends ScoredJob>(jobs: readonly Job[]): Job[] =>
  jobs.filter(({ p90, actual }) => Math.max(p90, actual) >= plannedBySeconds)
