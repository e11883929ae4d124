import {
  correctedBy,
  shownCounters,
  type CountersEntity,
  type DriveEntity,
  type SimulatedArray,
  type UsageEntity,
} from '../../array'
import { link, resource, root, status, type Body } from '../body'
import { placesOf, single, type Place } from '../Place'
import { drivePath } from './drives'

const day = 86_400_000
const reportType = 'MetricReport.v1_5_1.MetricReport'
const errorDays = 120
const consumed = '#/Capacity/Data/ConsumedBytes'
const counters = [
  'ReadIORequests',
  'WriteIORequests',
  'ReadIOKiBytes',
  'WriteIOKiBytes',
  'ReadHitIORequests',
  'ReadIORequestTime',
  'WriteIORequestTime',
] as const

interface Report {
  readonly id: string
  readonly name: string
  readonly every: string
  readonly span: string
  readonly properties: readonly string[]
  readonly values: (array: SimulatedArray) => readonly Body[]
}

const spaceProperties = [`${root}/Storage/1/StoragePools/{Id}${consumed}`, `${root}/Storage/1/Volumes/{Id}${consumed}`]
const loadProperties = counters.map(name => `${root}/Storage/1/Volumes/{Id}/Metrics#/IOStatistics/${name}`)

const errorCount = 'CorrectableIOReadErrorCount'
const errorProperties = [`${root}/Chassis/{Id}/Drives/{Id}#/Metrics/${errorCount}`]

const reports: readonly Report[] = [
  {
    id: 'SpaceByHour',
    name: 'Consumed bytes at every full hour',
    every: 'PT1H',
    span: 'P8D',
    properties: spaceProperties,
    values: array => inOrder(array.all('usageByHour')).flatMap(spaceOf),
  },
  {
    id: 'SpaceByDay',
    name: 'Consumed bytes at the end of every day',
    every: 'P1D',
    span: 'P120D',
    properties: spaceProperties,
    values: array => inOrder(array.all('usageByDay')).flatMap(spaceOf),
  },
  {
    id: 'LoadNow',
    name: 'What has been asked of volumes until now',
    every: 'PT1M',
    span: 'PT1M',
    properties: loadProperties,
    values: array => array.all('loadCounters').flatMap(loadOf),
  },
  {
    id: 'LoadByHour',
    name: 'What had been asked of volumes at every full hour',
    every: 'PT1H',
    span: 'P15D',
    properties: loadProperties,
    values: array => inOrder(array.all('loadsByHour')).flatMap(loadOf),
  },
  {
    id: 'ErrorsByDay',
    name: 'Read errors that drives had corrected at the end of every day',
    every: 'P1D',
    span: `P${errorDays}D`,
    properties: errorProperties,
    values: array => array.all('drives').flatMap(each => errorsOf(each, array.clock.now())),
  },
]

const inOrder = <T extends { readonly id: string }>(all: readonly T[]) =>
  [...all].sort((a, b) => Number(a.id) - Number(b.id))

const value = (place: string, name: string, text: string, at: number): Body => ({
  MetricId: name,
  MetricProperty: `${root}/Storage/1/${place}`,
  MetricValue: text,
  Timestamp: new Date(at).toISOString(),
})

function spaceOf({ id, pools, volumes }: UsageEntity): Body[] {
  const of = (kind: string) => (each: readonly [string, string]) =>
    value(`${kind}/${each[0]}${consumed}`, 'ConsumedBytes', each[1], Number(id))
  return [...Object.entries(pools).map(of('StoragePools')), ...Object.entries(volumes).map(of('Volumes'))]
}

/** A drive that errs keeps its counts of the days since it began to. */
function errorsOf(drive: DriveEntity, now: number): Body[] {
  const { errors } = drive
  if (errors === undefined) return []
  const midnight = Math.floor(now / day) * day
  const ends = Array.from({ length: errorDays }, (_, ago) => midnight - (errorDays - 1 - ago) * day)
  return ends
    .filter(at => at >= errors.since)
    .map(at => ({
      MetricId: errorCount,
      MetricProperty: `${root}/${drivePath(drive)}#/Metrics/${errorCount}`,
      MetricValue: `${correctedBy(errors, at)}`,
      Timestamp: new Date(at).toISOString(),
    }))
}

const loadOf = ({ at, volumes }: CountersEntity): Body[] =>
  Object.entries(volumes).flatMap(([id, counted]) =>
    Object.entries(shownCounters(counted)).map(([name, text]) =>
      value(`Volumes/${id}/Metrics#/IOStatistics/${name}`, name, text, at),
    ),
  )

const metrics = ['ConsumedBytes', errorCount, ...counters] as const
type MetricId = (typeof metrics)[number]

const metricBody = (id: MetricId): Body =>
  id === 'ConsumedBytes'
    ? { MetricType: 'Gauge', MetricDataType: 'Integer', Units: 'By', MetricProperties: spaceProperties }
    : id === errorCount
      ? { MetricType: 'Counter', MetricDataType: 'Integer', Units: '{error}', MetricProperties: errorProperties }
      : {
          MetricType: 'Counter',
          MetricDataType: id.endsWith('Time') ? 'String' : 'Integer',
          ...(id.endsWith('Time') ? {} : { Units: id.endsWith('KiBytes') ? 'KiBy' : '{request}' }),
          MetricProperties: loadProperties.filter(each => each.endsWith(`/${id}`)),
        }

/** What the system has measured and kept. Sources: Redfish TelemetryService, MetricReport; Swordfish VolumeMetrics, IOStatistics. */
export const telemetryPlaces = (array: SimulatedArray): Place[] => [
  single('TelemetryService', 'TelemetryService.v1_3_2.TelemetryService', 'Telemetry service', () => ({
    ServiceEnabled: true,
    MaxReports: reports.length,
    MinCollectionInterval: 'PT1M',
    MetricDefinitions: link('TelemetryService/MetricDefinitions'),
    MetricReportDefinitions: link('TelemetryService/MetricReportDefinitions'),
    MetricReports: link('TelemetryService/MetricReports'),
    Actions: {},
    Status: status(true),
  })),
  ...placesOf<MetricId>({
    path: 'TelemetryService/MetricDefinitions/:metric',
    type: 'MetricDefinition.v1_3_3.MetricDefinition',
    title: 'Metrics',
    members: () => metrics,
    idOf: id => id,
    nameOf: id => id,
    body: metricBody,
  }),
  ...reportPlaces(array),
]

/** What is reported, how often, and the reports themselves. */
const reportPlaces = (array: SimulatedArray): Place[] => [
  ...placesOf<Report>({
    path: 'TelemetryService/MetricReportDefinitions/:definition',
    type: 'MetricReportDefinition.v1_4_4.MetricReportDefinition',
    title: 'Definitions of metric reports',
    members: () => reports,
    idOf: ({ id }) => id,
    nameOf: ({ name }) => name,
    body: ({ id, every, span, properties }) => ({
      MetricReportDefinitionType: 'Periodic',
      MetricReportDefinitionEnabled: true,
      MetricProperties: properties,
      Schedule: { RecurrenceInterval: every },
      ReportTimespan: span,
      ReportUpdates: 'AppendWrapsWhenFull',
      ReportActions: ['LogToMetricReportsCollection'],
      MetricReport: link(`TelemetryService/MetricReports/${id}`),
      Status: status(true),
    }),
  }),
  ...placesOf<Report>({
    path: 'TelemetryService/MetricReports/:report',
    type: reportType,
    title: 'Metric reports',
    members: () => reports,
    idOf: ({ id }) => id,
    nameOf: ({ name }) => name,
    body: ({ id, values }) => reportBody(array, id, values(array)),
  }),
]

/** What has been asked of volumes until now, as a report that is sent. */
export const sentLoads = (array: SimulatedArray): Body => {
  const report = reports.find(({ id }) => id === 'LoadNow')
  const path = 'TelemetryService/MetricReports/LoadNow'
  return resource(
    path,
    reportType,
    'LoadNow',
    report?.name ?? '',
    reportBody(array, 'LoadNow', report?.values(array) ?? []),
  )
}

const reportBody = (array: SimulatedArray, id: string, values: readonly Body[]): Body => ({
  Timestamp: new Date(array.clock.now()).toISOString(),
  ReportSequence: `${values.length}`,
  MetricReportDefinition: link(`TelemetryService/MetricReportDefinitions/${id}`),
  MetricValues: values,
  'MetricValues@odata.count': values.length,
})
