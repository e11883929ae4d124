import type { Snapshot, Volume } from '@/core/estate'
import { literal, Op } from 'sequelize'
import { rows, type Scope } from '../database'
import { objects } from '../objects'

/** Whose schedule is meant: that of a class, for all of its volumes that have none of their own, or one that volumes have of their own. */
export type Scheduled = { readonly classId: string } | { readonly own: NonNullable<Volume['ownSchedule']> }

const which = (scope: Scope, scheduled: Scheduled) =>
  'classId' in scheduled
    ? { where: { classId: scheduled.classId }, sql: 'own_schedule is null' }
    : { where: {}, sql: `own_schedule = ${scope.database.escape(JSON.stringify(scheduled.own))}::jsonb` }

/** Volumes of a system that go by a schedule, of which no snapshot has been taken for a moment, or a later one. */
export function volumesDue(
  scope: Scope,
  systemId: string,
  scheduled: Scheduled,
  due: Date,
  limit: number,
): Promise<Volume[]> {
  const { where, sql } = which(scope, scheduled)
  return objects(scope, 'volumes', {
    where: { systemId, state: 'in use', ...where },
    and: literal(
      // By the index snapshots_by_due.
      `${sql} and not exists (select from snapshots taken where taken.volume_id = "volumes"."id" and taken.due_at >= ${scope.database.escape(due.toISOString())})`,
    ),
    order: [['id', 'ASC']],
    limit,
  })
}

/** Volumes of a system that go by a schedule. */
export function volumesUnder(scope: Scope, systemId: string, scheduled: Scheduled): Promise<Volume[]> {
  const { where, sql } = which(scope, scheduled)
  return objects(scope, 'volumes', {
    where: { systemId, state: 'in use', ...where },
    and: literal(sql),
    order: [['id', 'ASC']],
  })
}

/** The schedules that volumes of a system have of their own, each once. */
export const ownSchedules = async (
  scope: Scope,
  systemId: string,
): Promise<readonly NonNullable<Volume['ownSchedule']>[]> =>
  (
    await rows<{ readonly own: NonNullable<Volume['ownSchedule']> }>(
      scope,
      `select distinct own_schedule as own from volumes where system_id = $1 and own_schedule is not null and state = 'in use'`,
      [systemId],
    )
  ).map(({ own }) => own)

/** Snapshots of a system whose time in holding is over. */
export const snapshotsPast = (scope: Scope, systemId: string, now: Date, limit: number): Promise<Snapshot[]> =>
  objects(scope, 'snapshots', {
    where: { systemId },
    and: { goesAt: { [Op.lte]: now } },
    order: [['goesAt', 'ASC']],
    limit,
  })
