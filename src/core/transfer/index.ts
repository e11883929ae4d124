export { forecastBefore, inSequence, type Forecast, type SharedPart } from './forecastBefore'
export { forecastDuring, type ProgressSample, type RemainingTime } from './forecastDuring'
export { quantile } from './quantile'
export { plannedBy, score, type Score, type ScoredJob } from './score'
