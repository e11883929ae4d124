import { csvParseRows } from 'd3-dsv'
import { DateTime } from 'luxon'
import { isUuid } from '../input'
import { metricNames, type MetricName } from './metricNames'

/** A sample that somebody brings in, and the line on which it stood. */
export interface SampleLine {
  readonly line: number
  /** Of a pool or a volume. */
  readonly objectId: string
  readonly metric: MetricName
  /** Milliseconds since 1970. */
  readonly at: number
  readonly value: number
}
export interface RefusedLine {
  readonly line: number
  readonly why: string
}
export interface SampleLines {
  readonly samples: readonly SampleLine[]
  readonly refused: readonly RefusedLine[]
}
export const sampleFormats = ['CSV', 'JSON lines'] as const
export type SampleFormat = (typeof sampleFormats)[number]

const columns = ['object', 'metric', 'at', 'value'] as const
type Column = (typeof columns)[number]
type Asked = Readonly<Record<Column, unknown>>

/**
 * Reads samples from text. CSV begins with a line that names its columns: object, metric, at, value, in any order, others are passed
 * over; JSON lines have an object of these a line. Times are ISO 8601 with their zone; values are in the metric's own unit: bytes,
 * seconds, requests a second. A line that cannot be read is told, and the rest is read.
 */
export const readSampleLines = (text: string, format: SampleFormat): SampleLines =>
  format === 'CSV' ? ofCsv(text) : ofJsonLines(text)

function ofCsv(text: string): SampleLines {
  const [head = [], ...rows] = csvParseRows(text.replace(/^\uFEFF/, ''))
  const places = columns.map(column => head.findIndex(each => each.trim().toLowerCase() === column))
  const missing = columns.filter((_, index) => places[index] === -1)
  if (missing.length > 0)
    return { samples: [], refused: [{ line: 1, why: `The first line names no ${missing.join(', ')}.` }] }
  return read(
    rows.flatMap((row, index) => {
      if (row.every(each => each.trim() === '')) return []
      const [object, metric, at, value] = places.map(place => row[place]?.trim() ?? '')
      return [{ line: index + 2, asked: { object, metric, at, value: value === '' ? undefined : Number(value) } }]
    }),
  )
}

const ofJsonLines = (text: string): SampleLines =>
  read(
    text.split('\n').flatMap((line, index) => {
      if (line.trim() === '') return []
      return [{ line: index + 1, asked: parsed(line) }]
    }),
  )

function parsed(line: string): Asked | undefined {
  try {
    const value: unknown = JSON.parse(line)
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Asked) : undefined
  } catch {
    return undefined
  }
}

function read(lines: readonly { readonly line: number; readonly asked: Asked | undefined }[]): SampleLines {
  const samples: SampleLine[] = []
  const refused: RefusedLine[] = []
  for (const { line, asked } of lines) {
    const found = asked === undefined ? 'It is no JSON object.' : sampleOf(asked)
    if (typeof found === 'string') refused.push({ line, why: found })
    else samples.push({ line, ...found })
  }
  return { samples, refused }
}

const known: ReadonlySet<unknown> = new Set(metricNames)

function sampleOf({ object, metric, at, value }: Asked): Omit<SampleLine, 'line'> | string {
  if (typeof object !== 'string' || !isUuid(object)) return 'Its object is no id of a pool or volume.'
  if (!known.has(metric)) return `Its metric is none of ${metricNames.join(', ')}.`
  const instant =
    typeof at === 'string' && /(Z|[+-]\d\d:?\d\d)$/.test(at) ? DateTime.fromISO(at).toMillis() : Number.NaN
  if (!Number.isFinite(instant)) return 'Its time is not ISO 8601 with its zone, such as 2026-05-04T10:00:00Z.'
  if (typeof value !== 'number' || !Number.isFinite(value)) return 'Its value is not a number.'
  return { objectId: object, metric: metric as MetricName, at: instant, value }
}
