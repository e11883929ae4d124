import type { SnapshotSchedule } from '@/core/classes'
import { judged } from '@/core/snapshots'
import type { VolumeCopies } from '@/core/views'
import type { Scope } from '../database'
import { objects } from '../objects'

/** A volume's snapshots with what needs each, and the clones that share with them. */
export async function volumeCopies(
  scope: Scope,
  volumeId: string,
  schedule: SnapshotSchedule | undefined,
): Promise<VolumeCopies> {
  const snapshots = await objects(scope, 'snapshots', { where: { volumeId }, order: [['takenAt', 'ASC']] })
  const ids = snapshots.map(({ id }) => id)
  const clones = await objects(scope, 'volumes', { where: { cloneOfId: ids } })
  const mappings = await objects(scope, 'mappings', { where: { snapshotId: ids } })
  return {
    snapshots: judged(snapshots, { schedule, volumes: clones, mappings }),
    clones,
  }
}
