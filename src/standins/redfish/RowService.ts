import type { ClusterPools, SimulatedRow } from '../row'
import type { RowView } from './resources'

/** A row of nodes behind a management service. */
export interface RowService {
  readonly row: SimulatedRow
  readonly pools: ClusterPools
  readonly view: RowView
}
