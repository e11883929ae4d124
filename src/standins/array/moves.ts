import { survivedBy } from './layGroups'
import type { Entry } from '../fleet'
import type { PoolEntity, TaskEntity, VolumeEntity } from './entities'
import { heldBy, snapshotsOf } from './lineage'
import { poolWrittenBytes } from './poolSpace'
import { lanesOf } from './pools'
import { badValue, conflict } from './Refused'
import type { SimulatedArray } from './SimulatedArray'

/** What of a volume has to move: what it has written, and what its snapshots hold besides. */
function bytesOf(array: SimulatedArray, volume: VolumeEntity): bigint {
  return heldBy(array, volume.id).runs.reduce((sum, { bytes }) => sum + bytes, array.writtenBytes(volume))
}

/**
 * Begins to move a volume with its snapshots to another pool. Hosts go on reading and writing, under the same name; until it has arrived all
 * of it is in its own pool still, and what has been copied takes room in the other.
 * @param share of the drives' rate at both ends that the move may take (0 to 1)
 */
export function moveVolume(array: SimulatedArray, id: string, poolId: string, share: number): TaskEntity {
  const volume = array.one('volumes', id)
  const [from, to] = [array.one('pools', volume.poolId), array.one('pools', poolId)]
  const bytes = bytesOf(array, volume)
  const why = against(array, volume, to, bytes)
  if (why !== undefined) throw conflict(`${volume.name} was not moved.`, why, 'Remove the cause, then ask again.')
  if (from.id === to.id)
    throw badValue(`${volume.name} was not moved.`, `It is in ${to.name} already.`, 'Name another pool.')
  const rate = (pool: PoolEntity) =>
    lanesOf(array, pool.groups.flat(), share).reduce((sum, lane) => sum + lane.bytesPerSecond, 0)
  const task: TaskEntity = {
    ...array.task(`Move ${volume.name} to ${to.name}`, 'move-volume', id, { pool: to.id, bytes }, [
      { bytes: Number(bytes), bytesPerSecond: Math.min(rate(from), rate(to)) },
    ]),
    method: 'PATCH',
  }
  array.store.commit([array.entry('volumes', { ...volume, movingTo: to.id }), array.entry('tasks', task)])
  return task
}

function against(array: SimulatedArray, volume: VolumeEntity, to: PoolEntity, bytes: bigint): string | undefined {
  if (volume.movingTo !== undefined) return 'It is being moved already.'
  if (volume.mirror !== undefined) return 'It is mirrored to another system.'
  if (!volume.isReady) return 'It is still being zeroed.'
  if (volume.cloneOf !== undefined) return 'It is a clone that still shares with its source.'
  const own = new Set(snapshotsOf(array, volume.id).map(each => each.id))
  const clone = array.all('volumes').find(each => each.cloneOf !== undefined && own.has(each.cloneOf))
  if (clone !== undefined) return `${clone.name} is a clone that shares with its snapshots.`
  if (!to.isReady) return `Pool ${to.name} is still being initialised.`
  const failed = failedWhy(array, to)
  if (failed !== undefined) return failed
  const free = array.poolDataBytes(to) - poolWrittenBytes(array, to.id)
  return bytes > free ? `Pool ${to.name} has ${free} bytes left; ${bytes} would move.` : undefined
}

/** Why a pool of RAID groups no longer holds what was written to it; undefined where it does. */
export function failedWhy(array: SimulatedArray, pool: PoolEntity): string | undefined {
  const lost = (group: readonly string[]) => group.filter(id => array.one('drives', id).isFailed).length
  return pool.groups.some(group => lost(group) > survivedBy(pool.raidType))
    ? `Pool ${pool.name} has failed.`
    : undefined
}

/** Why a move cannot go on. */
export function moveHalted(array: SimulatedArray, task: TaskEntity): string | undefined {
  const { movingTo } = array.maybe('volumes', task.subjectId) ?? {}
  const to = movingTo === undefined ? undefined : array.maybe('pools', movingTo)
  return to === undefined ? 'The pool to which it moved is gone.' : failedWhy(array, to)
}

/** It has arrived: what it had in its old pool is given back. */
export function arrived(array: SimulatedArray, task: TaskEntity): Entry[] {
  const volume = array.maybe('volumes', task.subjectId)
  if (volume?.movingTo === undefined) return []
  return [array.entry('volumes', { ...volume, poolId: volume.movingTo, movingTo: undefined })]
}

/** It stays where it was: what had been copied is given back. */
export function notMoved(array: SimulatedArray, task: TaskEntity): Entry[] {
  const volume = array.maybe('volumes', task.subjectId)
  if (task.work !== 'move-volume' || volume === undefined) return []
  return [array.entry('volumes', { ...volume, movingTo: undefined })]
}
