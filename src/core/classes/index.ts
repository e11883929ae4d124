export { lossesSurvived } from './poolDurabilityOf'
export {
  latencyState,
  latestDue,
  latestDueOf,
  localHour,
  momentsDue,
  promisesOf,
  recurrenceOf,
  type PromiseKept,
  type PromiseName,
} from './promises'
export {
  isKeptFromOthers,
  measures,
  rankPools,
  type Asked,
  type Measure,
  type MeasureOf,
  type RankedPool,
} from './rankPools'
export { snapshotNeed } from './snapshotNeed'
export { placeTogether, type PlacedTogether, type Wanted } from './placeTogether'
export { scheduleOf, type SnapshotSchedule } from './scheduleOf'
