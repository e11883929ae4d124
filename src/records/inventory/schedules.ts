import type { Snapshot, Volume } from '@/core/estate'
import { literal, Op } from 'sequelize'
import type { Scope } from '../database'
import { objects } from '../objects'

/** Volumes of a system under a class of which no snapshot has been taken for a moment, or a later one. */
export const volumesDue = (
  scope: Scope,
  systemId: string,
  classId: string,
  due: Date,
  limit: number,
): Promise<Volume[]> =>
  objects(scope, 'volumes', {
    where: { systemId, classId, state: 'in use' },
    and: literal(
      // By the index snapshots_by_due.
      `not exists (select from snapshots taken where taken.volume_id = "volumes"."id" and taken.due_at >= ${scope.database.escape(due.toISOString())})`,
    ),
    order: [['id', 'ASC']],
    limit,
  })

/** Volumes under a class, from an id on. */
export const volumesUnder = (scope: Scope, systemId: string, classId: string): Promise<Volume[]> =>
  objects(scope, 'volumes', { where: { systemId, classId, state: 'in use' }, order: [['id', 'ASC']] })

/** Snapshots of a system whose time in holding is over. */
export const snapshotsPast = (scope: Scope, systemId: string, now: Date, limit: number): Promise<Snapshot[]> =>
  objects(scope, 'snapshots', {
    where: { systemId },
    and: { goesAt: { [Op.lte]: now } },
    order: [['goesAt', 'ASC']],
    limit,
  })
