export { forecastBefore, inSequence, type Forecast, type SharedPart } from './forecastBefore'
export { forecastDuring, type ProgressSample, type RemainingTime } from './forecastDuring'
export { score, type Score, type ScoredJob } from './score'
