export type { AuditEntry } from './AuditEntry'
export { timelineOf, tookSeconds, type Timeline } from './timelineOf'
export {
  shownChange,
  type ChangeRecord,
  type ChangeSummary,
  type EvidenceEntry,
  type JournalEntry,
  type ShownChange,
} from './ChangeRecord'
export type { Identity } from './Identity'
export type { Hit } from './Hit'
export type { ObjectList } from './ObjectList'
export type { ObjectPage } from './ObjectPage'
export type { SensorReading, SystemPage } from './SystemPage'
export {
  shareBys,
  type Grower,
  type PoolFilling,
  type PoolGrowth,
  type Share,
  type ShareBy,
  type WayOut,
} from './CapacityPage'
export {
  leftDays,
  leftWhys,
  type LeftBehind,
  type LeftDays,
  type LeftLine,
  type LeftList,
  type LeftWhy,
} from './LeftBehind'
export type { HealthPage, SourceLine, WornLine } from './HealthPage'
export type { AgainstPromise, PromisedLine, SlowLine, SlowList, SpanMean, VolumeLoad } from './PerformancePage'
export { packed, unpacked, type Packed } from './packed'
export type { ChangeLine } from './ChangeLine'
export type { ClassKept, PromiseCount } from './ClassKept'
export { driveSorts, type DriveCount, type DriveLine, type DriveSort } from './DriveLine'
export { upByController, type WaysSeen } from './HostWaysSeen'
export type { BoardBand, BoardEvent, BoardPage, Course, Lane, MovesWith, SeriesNamed } from './BoardPage'
export {
  reportRows,
  type ClassMonth,
  type MonthReport,
  type PoolMonth,
  type PromiseMonth,
  type SnapshotMonth,
} from './MonthReport'
export type { PartState, ThreadPage } from './ThreadPage'
export type { ToldMessage } from './ToldMessage'
export { volumeSorts, type VolumeLine, type VolumeSort } from './VolumeLine'
export type { GrantPage } from './GrantPage'
export type { FileScan, FilesPage, TwinFiles } from './FilesPage'
export type { SharePage } from './SharePage'
export type { PersonPage, Somebody, Supposed } from './Somebody'
export type { VolumeCopies, VolumePage } from './VolumePage'
export type { FindingRecord, PieceWork } from './RowPage'
export type { SavedView } from './SavedView'
export type { ConnectionPage, ConnectionTest } from './ConnectionTest'
export type { Behind, Review, ReviewList, ReviewPage } from './ReviewPage'
export type { UnknownHosts, UnknownInitiator } from './UnknownHosts'
