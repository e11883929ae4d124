import { row, run, type Scope } from '../database'

/** The latest moment of a class of which it is noted how many volumes of a system it was kept for. */
export async function lastMoment(scope: Scope, systemId: string, classId: string): Promise<Date | undefined> {
  const found = await row<{ readonly at: Date | null }>(
    scope,
    'select max(due_at) as at from snapshot_moments where system_id = $1 and class_id = $2',
    [systemId, classId],
  )
  return found?.at ?? undefined
}

/**
 * Notes of a moment that is over how many volumes go by the class's schedule, and of how many a snapshot was taken for it. Noted once; of
 * a class under which nothing stands nothing is noted.
 */
export const noteMoment = (scope: Scope, systemId: string, classId: string, due: Date): Promise<void> =>
  run(
    scope,
    `insert into snapshot_moments (class_id, system_id, due_at, volumes, taken)
     select $2, $1, $3, count(*), count(*) filter (where exists (
       -- by the index snapshots_by_due
       select from snapshots where volume_id = volumes.id and due_at = $3 and snapshots.state <> 'failed'))
     from volumes where system_id = $1 and class_id = $2 and own_schedule is null and state = 'in use' and missing_since is null
     having count(*) > 0 on conflict do nothing`,
    [systemId, classId, due.toISOString()],
  )
