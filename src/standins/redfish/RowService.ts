import type { PoolEntity, VolumeEntity } from '../array'
import type { ClusterPools, SimulatedRow } from '../row'

/** What only a row of nodes knows of its pools and volumes. */
export interface RowView {
  readonly poolHealth: (pool: PoolEntity) => 'OK' | 'Warning' | 'Critical'
  readonly lostBytes: (volume: VolumeEntity) => bigint
}

/** A row of nodes behind a management service. */
export interface RowService {
  readonly row: SimulatedRow
  readonly pools: ClusterPools
  readonly view: RowView
}
