import type { SeriesAsked } from '@/core/board'
import { metrics, type MetricName } from '@/core/metrics'
import type { SeriesNamed } from '@/core/views'
import { formatBytes } from '@/core/units'
import { latencyWords, partWords, requestWords, throughputWords } from '../performance'

/** A value of a series, as people read it. */
export function valueWords(metric: MetricName, value: number | null | undefined): string {
  if (value === null || value === undefined || Number.isNaN(value)) return 'not measured'
  const { unit } = metrics[metric]
  if (unit === 'bytes') return formatBytes(BigInt(Math.round(Math.max(0, value))))
  if (unit === 'seconds') return latencyWords(value)
  if (unit === 'part') return partWords(value)
  if (unit === 'degrees') return `${value.toFixed(1)} °C`
  if (unit === 'count') return Math.round(value).toLocaleString('en')
  return unit === 'requests a second' ? requestWords(value) : throughputWords(value)
}

export const metricWords = (metric: MetricName): string => metrics[metric].words.toLowerCase()

/** A series in one line. */
export const seriesWords = (of: SeriesNamed | undefined): string =>
  of === undefined ? 'an object that is gone' : `${of.name}, ${metricWords(of.metric)}`

/** By how much one follows the other, in words. */
export function lagWords(minutes: number): string {
  const whole = Math.round(Math.abs(minutes))
  if (whole === 0) return 'at the same time'
  const words = whole < 120 ? `${whole} min` : `${(whole / 60).toFixed(1)} h`
  return minutes > 0 ? `follows ${words} later` : `goes ${words} before`
}

/** How far the same series is laid behind itself. */
export const shiftWords = (days: number): string => `${Math.abs(days)} days ${days < 0 ? 'before' : 'after'}`

/** One lane of a board has one series, and a series one lane. */
export const laneKey = ({ metric, objectId }: SeriesAsked): string => `${metric}.${objectId}`
