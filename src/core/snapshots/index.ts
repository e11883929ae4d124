export { heldRuns, SnapshotSpace, type BlockVersion, type HeldRun } from './SnapshotSpace'
export { snapshotReserve } from './snapshotReserve'
