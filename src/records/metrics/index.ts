export { countedDrives } from './countedDrives'
export { bringIn } from './bringIn'
export { demandsIn, hourlyMeans, worstDemand, type MeanRow } from './demands'
export { areForecastsDue, forecastsOf, keepForecasts, keepPast } from './forecasts'
export { incomingBytes, writeSamples, type SeriesSample } from './incoming'
export { poolTrends } from './poolTrends'
export { packIncoming, type Packed } from './pack'
export { dailyLast, samplesBetween } from './read'
export { keepRecent } from './recent'
export { dropOldMetrics, keptDays, metricSizes } from './retention'
export { eachMeasured, poolPlaces, sampleLevels, seriesAt } from './series'
export {
  caughtUp,
  metricSource,
  noteCaughtUp,
  noteCounted,
  noteFilled,
  noteFollowed,
  noteGap,
  noteRefused,
  type MetricSource,
} from './sources'
