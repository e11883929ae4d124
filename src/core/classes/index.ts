export { lossesSurvived } from './poolDurabilityOf'
export { latestDue, promisesOf, recurrenceOf, type PromiseKept, type PromiseName } from './promises'
export { measures, rankPools, type Asked, type Measure, type MeasureOf, type RankedPool } from './rankPools'
export { placeTogether, type PlacedTogether, type Wanted } from './placeTogether'
