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
    .reduce((sum, volume) => sum + array.writtenBytes(volume), beyond > 0n ? beyond : 0n)
}
