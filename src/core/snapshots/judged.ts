import type { Mapping, ServiceClass, Snapshot, Volume } from '../estate'
import { keptSnapshots, type RetentionRule } from '../retention'

/** A snapshot with all that needs it. */
export interface Judged {
  readonly snapshot: Snapshot
  /** Rules of the retention; empty where no rule needs it. */
  readonly rules: readonly RetentionRule[]
  /** Names of the clones that still share with it. */
  readonly clones: readonly string[]
  /** Names of the groups that are shown it. */
  readonly shownTo: readonly string[]
}

interface Around {
  /** By which the volume goes: its own, or that of its class. */
  readonly schedule: Pick<ServiceClass, 'retention' | 'timeZone'> | undefined
  readonly volumes: readonly Volume[]
  readonly mappings: readonly Mapping[]
}

/**
 * What needs each snapshot of a volume. The retention judges what the schedule has taken; what somebody took stays until somebody
 * removes it. One that is on its way out is judged as if it were gone.
 */
export function judged(snapshots: readonly Snapshot[], { schedule, volumes, mappings }: Around): Judged[] {
  const taken = snapshots.flatMap(snapshot =>
    snapshot.takenAt === null || snapshot.dueAt === null || snapshot.goesAt !== null || snapshot.state !== 'consistent'
      ? []
      : [{ id: snapshot.id, takenAt: new Date(snapshot.takenAt) }],
  )
  const rules = new Map(
    keptSnapshots(taken, schedule?.retention ?? {}, schedule?.timeZone ?? 'UTC').map(each => [
      each.snapshot.id,
      each.rules,
    ]),
  )
  return snapshots.map(snapshot => ({
    snapshot,
    rules: rules.get(snapshot.id) ?? [],
    clones: volumes.filter(each => each.cloneOfId === snapshot.id).map(({ name }) => name),
    shownTo: mappings.filter(each => each.snapshotId === snapshot.id).map(({ groupName }) => groupName),
  }))
}

/** Snapshots of the schedule that nothing needs: no rule, hold, clone or host. */
export const mayGo = (all: readonly Judged[], schedule: Around['schedule']): Snapshot[] =>
  schedule === undefined || Object.values(schedule.retention).every(count => (count ?? 0) === 0)
    ? []
    : all
        .filter(
          ({ snapshot, rules, clones, shownTo }) =>
            snapshot.dueAt !== null &&
            snapshot.goesAt === null &&
            snapshot.state === 'consistent' &&
            snapshot.heldReason === null &&
            rules.length + clones.length + shownTo.length === 0,
        )
        .map(({ snapshot }) => snapshot)
