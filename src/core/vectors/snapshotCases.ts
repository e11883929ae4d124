import { keptSnapshots, type RetentionRules } from '../retention'
import { occurrences } from '../schedule'
import { heldRuns, SnapshotSpace } from '../snapshots'

interface ScheduleInput {
  readonly dtStart: string
  readonly timeZone: string
  readonly rrule: string
  readonly exDates: readonly string[]
  readonly windowStart: string
  readonly windowEnd: string
}

export function schedule({ dtStart, timeZone, rrule, exDates, windowStart, windowEnd }: ScheduleInput): unknown {
  const recurrence = { start: dtStart, timeZone, rule: rrule, except: exDates }
  const instants = occurrences(recurrence, new Date(windowStart), new Date(windowEnd))
  return { instants: instants.map(at => at.toISOString().replace('.000Z', 'Z')) }
}

interface RetentionInput {
  readonly timeZone: string
  readonly snapshots: readonly { readonly id: string; readonly takenAt: string }[]
  readonly rules: RetentionRules
}

export function retention({ timeZone, snapshots, rules }: RetentionInput): unknown {
  const taken = snapshots.map(({ id, takenAt }) => ({ id, takenAt: new Date(takenAt) }))
  const judged = keptSnapshots(taken, rules, timeZone)
  return {
    kept: judged.flatMap(({ snapshot, rules }) => (rules.length === 0 ? [] : [{ id: snapshot.id, rules }])),
    deleted: judged.flatMap(({ snapshot, rules }) => (rules.length === 0 ? [snapshot.id] : [])),
  }
}

interface SnapshotsInput {
  readonly snapshots: readonly { readonly id: string; readonly takenAt: number }[]
  readonly versions: readonly { readonly birth: number; readonly death: number | null; readonly bytes: string }[]
  readonly reclaimSets: readonly (readonly string[])[]
}

export function snapshots(input: SnapshotsInput): unknown {
  const ordered = [...input.snapshots].sort((a, b) => a.takenAt - b.takenAt)
  const placeOf = new Map(ordered.map(({ id }, place) => [id, place]))
  const versions = input.versions.map(each => ({ ...each, bytes: BigInt(each.bytes) }))
  const space = new SnapshotSpace(
    ordered.length,
    heldRuns(
      ordered.map(({ takenAt }) => takenAt),
      versions,
    ),
  )
  const liveBytes = versions.reduce((sum, { death, bytes }) => (death === null ? sum + bytes : sum), 0n)
  return {
    own: input.snapshots.map(({ id }) => ({ id, ownBytes: space.own(placeOf.get(id) ?? -1) })),
    reclaim: input.reclaimSets.map(ids => ({ reclaimBytes: space.reclaim(ids.map(id => placeOf.get(id) ?? -1)) })),
    liveBytes,
    heldBytes: liveBytes + space.total(),
    snapshotOnlyBytes: space.total(),
  }
}
