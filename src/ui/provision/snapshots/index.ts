export { SnapshotBoard } from './SnapshotBoard'
