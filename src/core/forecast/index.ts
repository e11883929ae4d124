export { forecastGrowth, type DailySeries, type FanPoint, type GrowthForecast, type NoForecast } from './forecastGrowth'
export { shiftDays, windowStart } from './shifts'
export { daysToFull, rankFilling, type Filling } from './timeToFull'
export { TrendFitter, type Trend } from './trend'
