import type { Pool, ServiceClass, Snapshot, Volume } from '../estate'
import { fillRatioOf } from '../estate'
import { isQuiet, occurrences, offsetAt, ruleInWords, type QuietHours } from '../schedule'
import { lossesSurvived } from './poolDurabilityOf'

export type PromiseName = 'resilience' | 'media' | 'latency' | 'snapshots' | 'copy' | 'headroom'

/** One line of a class for one object. */
export interface PromiseKept {
  readonly promise: PromiseName
  readonly state: 'kept' | 'at risk' | 'broken' | 'not measured'
  /** What is promised. */
  readonly promised: string
  /** The measurement behind it. */
  readonly measured: string
}

interface Around {
  readonly serviceClass: ServiceClass
  readonly pool: Pool | undefined
  /** Of the volume. */
  readonly snapshots: readonly Pick<Snapshot, 'takenAt' | 'state' | 'dueAt' | 'goesAt'>[]
  readonly now: Date
  /** What nineteen of twenty minutes of the last day stayed below (seconds); null or absent where nothing was measured. */
  readonly p95Seconds?: number | null
}

/** How far above the promised fill a pool stands before the promise is broken; until then it is at risk. */
const riskMargin = 0.05
const dayMilliseconds = 86_400_000
/** Start times are smeared, and a system may be busy: so late a snapshot may be. */
const lateMilliseconds = 15 * 60_000

/** What a volume is promised by its class, each with the measurement behind it; what is not promised has no line. */
export function promisesOf(volume: Pick<Volume, 'lostBytes' | 'mirror'>, around: Around): PromiseKept[] {
  const { serviceClass } = around
  return [
    ...(serviceClass.lossesSurvived === null ? [] : [resilience(serviceClass.lossesSurvived, volume, around)]),
    ...(serviceClass.media === 'any' ? [] : [media(serviceClass.media, around)]),
    ...(serviceClass.latencyMilliseconds === null ? [] : [latency(serviceClass.latencyMilliseconds, around)]),
    ...(serviceClass.snapshotRule === null ? [] : [snapshotsInTime(serviceClass.snapshotRule, around)]),
    ...(serviceClass.copyWithinMinutes === null ? [] : [copyElsewhere(serviceClass.copyWithinMinutes, volume.mirror)]),
    ...(serviceClass.headroomRatio === null ? [] : [headroom(serviceClass.headroomRatio, around)]),
  ]
}

const losses = (count: number) => (count === 0 ? 'no loss' : count === 1 ? 'any one loss' : `any ${count} losses`)

function resilience(promised: number, { lostBytes }: Pick<Volume, 'lostBytes'>, { pool }: Around): PromiseKept {
  const survived = pool === undefined ? undefined : lossesSurvived(pool)
  const line = { promise: 'resilience', promised: `survives ${losses(promised)}` } as const
  if (pool === undefined || survived === undefined)
    return { ...line, state: 'not measured', measured: 'its pool states no layout that is known' }
  if (lostBytes > 0n) return { ...line, state: 'broken', measured: 'some of it can no longer be read' }
  if (survived < promised) return { ...line, state: 'broken', measured: `${pool.name} survives ${losses(survived)}` }
  return pool.state === 'fine' || pool.state === 'starting'
    ? { ...line, state: 'kept', measured: `${pool.name} survives ${losses(survived)}` }
    : { ...line, state: 'at risk', measured: `${pool.name} is ${pool.state}: it survives less now` }
}

const media = (promised: 'SSD' | 'HDD', { pool }: Around): PromiseKept => ({
  promise: 'media',
  promised: `on ${promised}`,
  state: pool === undefined ? 'not measured' : pool.driveKind.media === promised ? 'kept' : 'broken',
  measured: pool === undefined ? 'its pool is not known' : `${pool.name} is of ${pool.driveKind.media}`,
})

/** A promise of which more than this part is used up is at risk. */
const nearRatio = 0.8

/** How a promise of latency is kept; both in one unit. */
export const latencyState = (measured: number, promised: number): 'kept' | 'at risk' | 'broken' =>
  measured > promised ? 'broken' : measured > promised * nearRatio ? 'at risk' : 'kept'

function latency(promised: number, { p95Seconds }: Around): PromiseKept {
  const line = { promise: 'latency', promised: `95 of 100 minutes within ${promised} ms` } as const
  if (p95Seconds === undefined || p95Seconds === null)
    return { ...line, state: 'not measured', measured: 'its system has told nothing of it in the last day' }
  const milliseconds = p95Seconds * 1000
  return {
    ...line,
    state: latencyState(milliseconds, promised),
    measured: `within ${milliseconds.toFixed(milliseconds < 10 ? 2 : 1)} ms in the last day`,
  }
}

function snapshotsInTime(rule: string, { serviceClass, snapshots, now }: Around): PromiseKept {
  const line = { promise: 'snapshots', promised: `a snapshot ${ruleInWords(rule)}` } as const
  const due = latestDueOf(serviceClass, new Date(now.getTime() - lateMilliseconds))
  if (due === undefined) return { ...line, state: 'kept', measured: 'none has come due yet' }
  const moments = snapshots
    .filter(each => each.state === 'consistent' && each.goesAt === null && each.dueAt !== null)
    .map(each => Date.parse(each.takenAt ?? ''))
  const latest = Math.max(-Infinity, ...moments)
  if (latest >= due.getTime()) return { ...line, state: 'kept', measured: `the latest holds ${utc(latest)}` }
  return Number.isFinite(latest)
    ? { ...line, state: 'broken', measured: `the latest holds ${utc(latest)}; one was due ${utc(due.getTime())}` }
    : { ...line, state: 'at risk', measured: `none has been taken yet; one was due ${utc(due.getTime())}` }
}

const utc = (at: number) => `${new Date(at).toISOString().slice(0, 16).replace('T', ' ')} UTC`

/** What is mirrored is never behind; a mirror that is filled, or broken, holds nothing that could be used. */
function copyElsewhere(promised: number, mirror: Volume['mirror']): PromiseKept {
  const words = promised === 0 ? 'that loses nothing' : `at most ${promised} minutes old`
  const line = { promise: 'copy', promised: `a copy on another system, ${words}` } as const
  if (mirror === null) return { ...line, state: 'broken', measured: 'no other system holds it' }
  if (mirror.state === 'alike')
    return { ...line, state: 'kept', measured: 'every write reaches both before it is acknowledged' }
  return mirror.state === 'filling'
    ? { ...line, state: 'at risk', measured: 'its mirror is being filled' }
    : { ...line, state: 'broken', measured: 'its mirror is broken: the other end is behind' }
}

function headroom(promised: number, { pool }: Around): PromiseKept {
  const line = { promise: 'headroom', promised: `${(promised * 100).toFixed(0)}% stays free` } as const
  if (pool === undefined) return { ...line, state: 'not measured', measured: 'its pool is not known' }
  const free = 1 - fillRatioOf(pool)
  const measured = `${(Math.max(0, free) * 100).toFixed(0)}% of ${pool.name} is free`
  return { ...line, measured, state: free >= promised + riskMargin ? 'kept' : free >= promised ? 'at risk' : 'broken' }
}

/** Schedules of classes are counted from here, local in their zone: a Thursday at midnight. */
const scheduleStart = '20260101T000000'

/** A class's schedule as a recurrence. */
export const recurrenceOf = (rule: string, timeZone: string) => ({ start: scheduleStart, timeZone, rule, except: [] })

const longestDays = 400

/** The hour of the day at an instant, by the clocks of a zone. */
export const localHour = (at: Date, timeZone: string): number =>
  ((((at.getTime() + offsetAt(at.getTime(), timeZone)) % dayMilliseconds) + dayMilliseconds) % dayMilliseconds) /
  3_600_000

type Scheduled = Pick<ServiceClass, 'snapshotRule' | 'timeZone' | 'quietHours'>
/** What was due last by a class, as it was asked last: all volumes of a list ask for the same moment, and a rule takes long to expand. */
const lastAsked = new WeakMap<Scheduled, { readonly until: number; readonly due: Date | undefined }>()

/** The latest moment up to an instant at which a snapshot was due by a class; undefined where it takes none, or none was. */
export function latestDueOf(scheduled: Scheduled, until: Date): Date | undefined {
  const { snapshotRule, timeZone, quietHours } = scheduled
  if (snapshotRule === null) return undefined
  const known = lastAsked.get(scheduled)
  if (known?.until === until.getTime()) return known.due
  const due = latestDue(snapshotRule, timeZone, until, quietHours)
  lastAsked.set(scheduled, { until: until.getTime(), due })
  return due
}

/** The latest moment up to an instant at which a class's schedule was due; undefined where there was none. */
export function latestDue(
  rule: string,
  timeZone: string,
  until: Date,
  quiet: QuietHours | null = null,
): Date | undefined {
  const recurrence = recurrenceOf(rule, timeZone)
  // Most rules come due within days: a longer look is only taken where that found nothing.
  for (const days of [2, 35, longestDays]) {
    const from = new Date(until.getTime() - days * dayMilliseconds)
    const due = occurrences(recurrence, from, new Date(until.getTime() + 1)).findLast(
      each => quiet === null || !isQuiet(localHour(each, timeZone), quiet),
    )
    if (due !== undefined) return due
  }
  return undefined
}

const mostMoments = 1000

/** The moments at which a schedule was due after one instant and up to another, the latest of very many. */
export function momentsDue({ snapshotRule, timeZone, quietHours }: Scheduled, after: Date, until: Date): Date[] {
  if (snapshotRule === null || until <= after) return []
  return occurrences(recurrenceOf(snapshotRule, timeZone), new Date(after.getTime() + 1), new Date(until.getTime() + 1))
    .filter(each => quietHours === null || !isQuiet(localHour(each, timeZone), quietHours))
    .slice(-mostMoments)
}
