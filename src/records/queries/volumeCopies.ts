import type { ServiceClass } from '@/core/estate'
import { judged } from '@/core/snapshots'
import type { VolumeCopies } from '@/core/views'
import type { Scope } from '../database'
import { objects } from '../objects'

/** A volume's snapshots with what needs each, and the clones that share with them. */
export async function volumeCopies(
  scope: Scope,
  volumeId: string,
  serviceClass: ServiceClass | null,
): Promise<VolumeCopies> {
  const snapshots = await objects(scope, 'snapshots', { where: { volumeId }, order: [['takenAt', 'ASC']] })
  const ids = snapshots.map(({ id }) => id)
  const clones = await objects(scope, 'volumes', { where: { cloneOfId: ids } })
  const mappings = await objects(scope, 'mappings', { where: { snapshotId: ids } })
  return {
    snapshots: judged(snapshots, { serviceClass: serviceClass ?? undefined, volumes: clones, mappings }),
    clones,
  }
}
