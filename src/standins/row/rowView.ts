import type { PoolEntity, VolumeEntity } from '../array'
import type { PieceStore } from './PieceStore'
import type { SimulatedRow } from './SimulatedRow'

/** What a row's management service states of a pool's health and a volume's losses, from where the pieces lie now. */
export function rowView(row: SimulatedRow, store: PieceStore) {
  return {
    poolHealth(pool: PoolEntity): 'OK' | 'Warning' | 'Critical' {
      if (pool.spread === null) return 'OK'
      const lost = new Set(row.lostDrives(pool).map(drive => drive.id))
      if (lost.size === 0) return 'OK'
      if (store.lostSets(pool).size > 0) return 'Critical'
      const isThin = store.tables.of(pool.id).some(places => places.some(drive => drive === null || lost.has(drive)))
      return isThin ? 'Warning' : 'OK'
    },
    lostBytes: (volume: VolumeEntity) => store.lostBytes(volume.id),
  }
}
