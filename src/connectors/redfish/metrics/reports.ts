import { rollup } from 'd3-array'
import { DateTime, Duration } from 'luxon'
import { UnreadableAnswer } from '../../http'
import type { Connection } from '../Connection'
import { isMetricReport, isReportDefinition, isTelemetryService, type ReportDefinition } from './schema'

const mostPages = 1000

/** A value of a report, as far as it could be read. */
export interface ReportValue {
  /** Of the resource, without what stands in it. */
  readonly locator: string
  /** Where the value stands within the resource. */
  readonly pointer: string
  /** Milliseconds since 1970; not a number where it could not be read. */
  readonly at: number
  readonly text: unknown
}

/** The values of some properties that a service has kept since an instant. @param isWanted by where a property stands within its resource */
export async function reportedSince(
  reading: Connection,
  service: string,
  { since, now }: { readonly since: Date; readonly now: Date },
  isWanted: (pointer: string) => boolean,
): Promise<ReportValue[]> {
  const place = (await reading.read(service, isTelemetryService)).MetricReportDefinitions?.['@odata.id']
  const definitions = place === undefined ? [] : await reading.members(place, isReportDefinition)
  const back = now.getTime() - since.getTime()
  const values: ReportValue[] = []
  for (const alike of definitionsOf(definitions, isWanted).values())
    for (const report of reportsFor(alike, back)) {
      const found = await valuesOf(reading, report, isWanted)
      // One by one: a report of a large system has more values than a call takes arguments.
      for (const value of found) values.push(value)
    }
  // What has no time is handed on: it is counted as refused.
  return values.filter(({ at }) => !(at < since.getTime()))
}

/** Definitions that have something that is wanted, those with the same together: what one kind reaches back to says nothing of another. */
function definitionsOf(
  definitions: readonly ReportDefinition[],
  isWanted: (pointer: string) => boolean,
): Map<string, ReportDefinition[]> {
  const usable = definitions.flatMap(definition => {
    const named = definition.MetricProperties ?? undefined
    const wanted = named?.map(each => each.slice(each.indexOf('#') + 1)).filter(isWanted)
    // A definition that does not say what it has may have all of it.
    const key = wanted === undefined ? '' : [...new Set(wanted)].sort().join(' ')
    return wanted?.length === 0 ? [] : [{ definition, key }]
  })
  return rollup(
    usable,
    alike => alike.map(({ definition }) => definition),
    ({ key }) => key,
  )
}

const milliseconds = (iso: string | null | undefined) => {
  const found = Duration.fromISO(iso ?? '')
  return found.isValid ? found.toMillis() : undefined
}

/**
 * The reports that together reach so far back: the most frequent ones first, and a coarser one only where what the finer ones lack is as
 * long as what it tells once: weeks of hours are not read for the sake of a minute. A report that does not say how far it reaches is read
 * in any case.
 */
function reportsFor(definitions: readonly ReportDefinition[], backMilliseconds: number): string[] {
  const usable = definitions
    .filter(each => each.MetricReportDefinitionEnabled !== false && each.MetricReport !== undefined)
    .map(each => ({
      report: each.MetricReport?.['@odata.id'] ?? '',
      every: milliseconds(each.Schedule?.RecurrenceInterval) ?? 0,
      span: milliseconds(each.ReportTimespan),
    }))
    .sort((a, b) => a.every - b.every)
  let reached = 0
  return usable.flatMap(({ report, every, span }) => {
    if (span === undefined) return [report]
    const lacks = backMilliseconds - reached
    if (lacks <= 0 || (reached > 0 && lacks < every)) return []
    reached = Math.max(reached, span)
    return [report]
  })
}

async function valuesOf(
  reading: Connection,
  report: string,
  isWanted: (pointer: string) => boolean,
): Promise<ReportValue[]> {
  const values: ReportValue[] = []
  const pages = new Set<string>()
  const at = instants()
  let next: string | undefined = report
  while (next !== undefined) {
    if (pages.has(next) || pages.size > mostPages) throw new UnreadableAnswer(report, 'Its pages lead round in a ring.')
    pages.add(next)
    const page: { MetricValues: object[]; 'MetricValues@odata.nextLink'?: string | null } = await reading.read(
      next,
      isMetricReport,
    )
    for (const read of valuesIn(page.MetricValues, isWanted, at)) values.push(read)
    next = page['MetricValues@odata.nextLink'] ?? undefined
  }
  return values
}

/** The values of some properties of a report, or of a page of it. */
export const valuesIn = (
  values: readonly object[],
  isWanted: (pointer: string) => boolean,
  at = instants(),
): ReportValue[] => values.flatMap(each => valueOf(each, isWanted, at) ?? [])

/** Reads instants; thousands of values of a report bear the same one, which is read once. */
function instants(): (text: unknown) => number {
  const known = new Map<string, number>()
  return text => {
    if (typeof text !== 'string') return Number.NaN
    const at = known.get(text) ?? DateTime.fromISO(text, { zone: 'utc' }).toMillis()
    known.set(text, at)
    return at
  }
}

function valueOf(
  value: object,
  isWanted: (pointer: string) => boolean,
  at: (text: unknown) => number,
): ReportValue | undefined {
  const { MetricProperty: property, MetricValue: text, Timestamp: instant } = value as Readonly<Record<string, unknown>>
  if (typeof property !== 'string') return undefined
  const cut = property.indexOf('#')
  if (cut < 1) return undefined
  const pointer = property.slice(cut + 1)
  return isWanted(pointer) ? { locator: property.slice(0, cut), pointer, at: at(instant), text } : undefined
}

/** A plain decimal number, as the standard writes metric values. */
const decimal = /^[+-]?\d{1,30}(\.\d{1,30})?([eE][+-]?\d{1,3})?$/

/** What stands there as a number; what is anything else is told as not a number. */
export const numberIn = (text: unknown): number =>
  typeof text === 'string' && decimal.test(text) ? Number(text) : Number.NaN

/** A duration as in ISO 8601, in seconds. */
export function secondsIn(text: unknown): number {
  const found = typeof text === 'string' && text.length < 60 ? Duration.fromISO(text) : Duration.invalid('no text')
  return found.isValid ? found.as('seconds') : Number.NaN
}
