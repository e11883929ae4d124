import { compile, head, optionalText, reference, type Checked } from '../schema'

/** Source: Redfish, TelemetryService. */
export const isTelemetryService = compile({
  type: 'object',
  properties: { MetricReportDefinitions: reference },
} as const)

/** What a report has, how often, and how far back. Durations as in ISO 8601. Source: Redfish, MetricReportDefinition. */
export const isReportDefinition = compile({
  type: 'object',
  required: ['@odata.id'],
  properties: {
    ...head,
    MetricReportDefinitionEnabled: { type: ['boolean', 'null'] },
    MetricProperties: { type: ['array', 'null'], items: { type: 'string', maxLength: 4096 } },
    Schedule: { type: ['object', 'null'], properties: { RecurrenceInterval: optionalText } },
    ReportTimespan: optionalText,
    MetricReport: reference,
  },
} as const)

export type ReportDefinition = Checked<typeof isReportDefinition>

/**
 * As it is read, and as it comes by the event stream. Values may be anything that a system writes there: each is looked at by itself, so
 * that a bad one spoils no other.
 */
export const isMetricReport = compile({
  type: 'object',
  required: ['MetricValues'],
  properties: {
    MetricValues: { type: 'array', items: { type: 'object' } },
    'MetricValues@odata.nextLink': optionalText,
  },
} as const)
