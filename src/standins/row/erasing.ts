import { conflict, type TaskEntity } from '../array'
import type { SimulatedRow } from './SimulatedRow'

/** Begins to erase a drive that no pool uses. @returns the task */
export function beginErasing(row: SimulatedRow, driveId: string, isWhole: boolean): TaskEntity {
  const { array } = row
  const drive = array.one('drives', driveId)
  if (drive.isBoot)
    throw conflict(`Drive ${drive.serial} was not erased.`, 'Its node starts from it.', 'Choose another drive.')
  if (drive.poolId !== null)
    throw conflict(`Drive ${drive.serial} was not erased.`, 'A pool uses it.', 'Take it out of the pool first.')
  if (drive.isFailed || drive.isPulled || !row.isAnswering(row.nodeOf(drive)))
    throw conflict(
      `Drive ${drive.serial} was not erased.`,
      'It does not answer.',
      'See whether it and its node are there.',
    )
  // Tables and file system heads lie in the first and last part of each partition; a whole erasure writes every sector.
  const bytes = isWhole ? Number(drive.capacityBytes) : 256 * 1024 * 1024
  const task = {
    ...array.task(`Erase drive ${drive.serial}`, 'erase-drive' as const, driveId, { isWhole }, [
      { bytes, bytesPerSecond: drive.bytesPerSecond * 0.9 },
    ]),
    resultUri: `/redfish/v1/Chassis/${drive.enclosureId}/Drives/${drive.id}`,
  }
  array.store.commit([array.entry('tasks', task)])
  return task
}
