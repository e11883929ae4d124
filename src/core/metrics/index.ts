export { dailyLevels, type DailyLevels } from './dailyLevels'
export { mergeSamples, type Sample } from './mergeSamples'
export {
  isMeasuredOf,
  measuredKinds,
  metricNames,
  metrics,
  packStart,
  type MeasuredKind,
  type Metric,
  type MetricName,
} from './metricNames'
export { openMetrics, openMetricsType, type ExposedFamily } from './openMetrics'
export { packSamples, unpackSamples, type Samples } from './packedSamples'
export { ratesBetween, ratesTogether, type Counters, type Rates } from './rates'
export { Sketch } from './sketch'
export {
  readSampleLines,
  sampleFormats,
  type RefusedLine,
  type SampleFormat,
  type SampleLine,
  type SampleLines,
} from './readSampleLines'
export { isFromFuture, refusedWhy, refuseSamples, type RefusedWhy } from './refuseSamples'
