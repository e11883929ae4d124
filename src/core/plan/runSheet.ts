import type { Plan } from './Plan'

/** A mark of the journal, as the run sheet reads it; seconds since the change was carried out. */
export interface JournalMark {
  readonly stepIndex: number
  readonly event: 'begun' | 'progress' | 'waited' | 'done' | 'failed' | 'undone'
  readonly atSeconds: number
  readonly doneRatio?: number
}

/** A step as a lane in time: the forecast's outline and what happened as fill; seconds since the start. */
export interface Lane {
  readonly name: string
  readonly words: string
  readonly forecastFrom: number
  readonly forecastTo: number
  readonly forecastLatest: number
  readonly from: number | null
  readonly to: number | null
  readonly doneRatio: number
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'undone'
}

/** Lays the plan's steps and the journal out in time. @param nowSeconds since the change was carried out */
export function runSheet({ steps }: Pick<Plan, 'steps'>, marks: readonly JournalMark[], nowSeconds: number): Lane[] {
  let at = 0
  return steps.map((step, stepIndex) => {
    const forecastFrom = at
    at += step.forecast.p50Seconds
    const own = marks.filter(mark => mark.stepIndex === stepIndex)
    const begun = own.find(mark => mark.event === 'begun')
    const end = own.findLast(mark => mark.event === 'done' || mark.event === 'failed' || mark.event === 'undone')
    const progress = own.findLast(mark => mark.doneRatio !== undefined)
    const done = end?.event === 'done' ? 1 : (progress?.doneRatio ?? 0)
    return {
      name: step.name,
      words: step.words,
      forecastFrom,
      forecastTo: at,
      forecastLatest: forecastFrom + step.forecast.p90Seconds,
      from: begun?.atSeconds ?? null,
      to: begun === undefined ? null : (end?.atSeconds ?? nowSeconds),
      doneRatio: done,
      state:
        end === undefined
          ? begun === undefined
            ? 'waiting'
            : 'running'
          : end.event === 'done'
            ? 'done'
            : end.event === 'failed'
              ? 'failed'
              : 'undone',
    }
  })
}
