import { heldBy } from './lineage'
import type { SimulatedArray } from './SimulatedArray'

/** What snapshots of a pool's volumes hold besides the volumes. */
export function poolSnapshotBytes(array: SimulatedArray, poolId: string): bigint {
  const taken = new Set(array.all('snapshots').map(each => each.volumeId))
  return array
    .all('volumes')
    .filter(volume => volume.poolId === poolId && taken.has(volume.id))
    .reduce((sum, volume) => heldBy(array, volume.id).runs.reduce((held, run) => held + run.bytes, sum), 0n)
}

/** What volumes of a pool have written, and what snapshots hold beyond the reserve that is set aside for them. */
export function poolWrittenBytes(array: SimulatedArray, poolId: string): bigint {
  const beyond = poolSnapshotBytes(array, poolId) - BigInt(array.one('pools', poolId).snapshotReserveBytes)
  return array
    .all('volumes')
    .filter(volume => volume.poolId === poolId)
    .reduce(
      (sum, volume) => sum + array.writtenBytes(volume),
      arrivedBytes(array, poolId) + (beyond > 0n ? beyond : 0n),
    )
}

/** What has been copied to a pool of volumes that are on their way to it. */
function arrivedBytes(array: SimulatedArray, poolId: string): bigint {
  const coming = new Set(array.all('volumes').flatMap(each => (each.movingTo === poolId ? each.id : [])))
  if (coming.size === 0) return 0n
  return array
    .all('tasks')
    .filter(task => task.work === 'move-volume' && task.state === 'Running' && coming.has(task.subjectId))
    .reduce((sum, { lanes: [lane], workedSeconds }) => {
      const done = lane === undefined ? 0 : Math.min(lane.bytes, lane.bytesPerSecond * workedSeconds)
      return sum + BigInt(Math.floor(done))
    }, 0n)
}
