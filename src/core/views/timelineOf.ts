import { runSheet, type JournalMark, type Lane } from '../plan'
import { forecastDuring, type RemainingTime } from '../transfer'
import type { ShownChange, ChangeSummary, JournalEntry } from './ChangeRecord'

/** A change laid out in time; all in seconds since it was carried out. */
export interface Timeline {
  readonly lanes: readonly Lane[]
  /** Null for a change that does not run. */
  readonly nowSeconds: number | null
  readonly proofFrom: number | null
  readonly proofTo: number | null
  readonly tookSeconds: number | null
  /** What is left of the running step by its own pace; undefined while that is not known. */
  readonly left: RemainingTime | undefined
  /** Which time all this is in: what waits for requests takes the wall's, what waits for drives the systems' own. */
  readonly clock: 'wall' | 'estate'
}

/** The instants between which a change is measured, by the time that it is bound by. */
function spanOf(change: Omit<ChangeSummary, 'forecast'>, { boundBy }: ChangeSummary['forecast']) {
  return boundBy === 'requests'
    ? { clock: 'wall' as const, beganAt: change.carriedOutAt, endedAt: change.endedAt }
    : { clock: 'estate' as const, beganAt: change.carriedOutEstateAt, endedAt: change.endedEstateAt }
}

/** How long an ended change took (seconds); null for one that has not ended. */
export function tookSeconds({ forecast, ...change }: ChangeSummary): number | null {
  const { beganAt, endedAt } = spanOf(change, forecast)
  if (beganAt === null || endedAt === null) return null
  return change.tookSeconds ?? Math.max(0, (Date.parse(endedAt) - Date.parse(beganAt)) / 1000)
}

/** @param now the wall's time and the estate's at the same moment */
export function timelineOf(
  change: ShownChange,
  journal: readonly JournalEntry[],
  now: { readonly wall: Date; readonly estate: Date },
): Timeline {
  const { clock, beganAt, endedAt } = spanOf(change, change.plan.forecast)
  const seconds = (at: string | Date) => Math.max(0, (new Date(at).getTime() - Date.parse(beganAt ?? '')) / 1000)
  const nowSeconds =
    change.state === 'running' && beganAt !== null ? seconds(clock === 'wall' ? now.wall : now.estate) : null
  const endSeconds = beganAt === null || endedAt === null ? null : seconds(endedAt)
  const tookSeconds = endSeconds === null ? null : (change.tookSeconds ?? endSeconds)
  const marks: JournalMark[] = journal.map(entry => ({
    stepIndex: entry.stepIndex,
    event: entry.event,
    atSeconds: seconds(clock === 'wall' ? entry.at : entry.estateAt),
    ...(entry.doneRatio === null ? {} : { doneRatio: entry.doneRatio }),
  }))
  const lanes = runSheet(change.plan, marks, nowSeconds ?? endSeconds ?? 0)
  const isProving = lanes.every(lane => lane.state === 'done')
  const step = marks.at(-1)?.stepIndex
  const samples = marks
    .filter(mark => mark.stepIndex === step && (mark.doneRatio !== undefined || mark.event === 'begun'))
    .map(mark => ({ atSeconds: mark.atSeconds, doneRatio: mark.doneRatio ?? 0 }))
  return {
    lanes,
    nowSeconds,
    proofFrom: isProving ? Math.max(0, ...lanes.map(lane => lane.to ?? 0)) : null,
    proofTo: isProving ? (nowSeconds ?? endSeconds) : null,
    tookSeconds,
    left: nowSeconds === null ? undefined : forecastDuring(samples),
    clock,
  }
}
