import type { Counters } from '@/core/metrics'
import { NotOffered, type MeasuredCounters, type MeasuredSample, type Metrics } from '@/ports'
import type { Offer } from '../Reach'
import { numberIn, reportedSince, secondsIn, valuesIn, type ReportValue } from './reports'

/** Levels, by the property of a resource that has it now. A property that is not here is not kept. */
const levelAt: ReadonlyMap<string, MeasuredSample['metric']> = new Map([
  ['/Capacity/Data/ConsumedBytes', 'written'],
  // As a resource of its own, and within the drive.
  ['/CorrectableIOReadErrorCount', 'errors'],
  ['/Metrics/CorrectableIOReadErrorCount', 'errors'],
])

type Counted = Exclude<keyof Counters, 'at'>
/** Counters of a volume. Source: Swordfish, VolumeMetrics and IOStatistics. */
const counterAt: ReadonlyMap<string, readonly [Counted, (text: unknown) => number]> = new Map([
  ['/IOStatistics/ReadIORequests', ['readRequests', numberIn]],
  ['/IOStatistics/WriteIORequests', ['writeRequests', numberIn]],
  ['/IOStatistics/ReadIOKiBytes', ['readKibibytes', numberIn]],
  ['/IOStatistics/WriteIOKiBytes', ['writeKibibytes', numberIn]],
  ['/IOStatistics/ReadHitIORequests', ['readHits', numberIn]],
  ['/IOStatistics/ReadIORequestTime', ['readSeconds', secondsIn]],
  ['/IOStatistics/WriteIORequestTime', ['writeSeconds', secondsIn]],
])
const metricsPart = /\/Metrics$/
/** Where a metric stands at a part of a resource, it is of the resource. */
const ownLocator = (place: string) => place.replace(metricsPart, '')

/** What a system has measured and kept. Sources: Redfish, TelemetryService, MetricReportDefinition and MetricReport. */
export const metrics: Offer<'metrics'> = ({ connection, map }): Metrics => {
  const { telemetry } = map
  if (telemetry === undefined)
    throw new NotOffered(connection.endpoint.address, 'metrics', 'Its service root names no telemetry service.')
  return {
    async levelsSince(since, now) {
      // A history is bounded as a reading of the whole system is.
      const values = await reportedSince(connection.reading(), telemetry, { since, now }, pointer =>
        levelAt.has(pointer),
      )
      return values.flatMap(({ locator, pointer, at, text }) => {
        const metric = levelAt.get(pointer)
        return metric === undefined ? [] : [{ locator: ownLocator(locator), metric, at, value: numberIn(text) }]
      })
    },
    async countersSince(since, now) {
      return together(
        await reportedSince(connection.reading(), telemetry, { since, now }, pointer => counterAt.has(pointer)),
      )
    },
  }
}

/** What a report that a system sends by itself has counted. */
export const countersIn = (values: readonly object[]): MeasuredCounters[] =>
  together(valuesIn(values, pointer => counterAt.has(pointer)))

const unread = {
  readRequests: NaN,
  writeRequests: NaN,
  readKibibytes: NaN,
  writeKibibytes: NaN,
  readHits: NaN,
} as const

/** Counters of one resource at one instant belong together; one that is missing is not a number. */
function together(values: readonly ReportValue[]): MeasuredCounters[] {
  const found = new Map<string, { -readonly [Field in keyof MeasuredCounters]: MeasuredCounters[Field] }>()
  for (const { locator: place, pointer, at, text } of values) {
    const [field, read] = counterAt.get(pointer) ?? []
    if (field === undefined || read === undefined) continue
    const locator = ownLocator(place)
    const key = `${at} ${locator}`
    const counters = found.get(key) ?? { ...unread, locator, at, readSeconds: NaN, writeSeconds: NaN }
    counters[field] = read(text)
    found.set(key, counters)
  }
  return [...found.values()]
}
