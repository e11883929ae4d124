import { shownCounters, type CountersEntity, type SimulatedArray, type UsageEntity } from '../../array'
import { link, root, status, type Body } from '../body'
import { placesOf, single, type Place } from '../Place'

const consumed = '#/Capacity/Data/ConsumedBytes'
const counters = [
  'ReadIORequests',
  'WriteIORequests',
  'ReadIOKiBytes',
  'WriteIOKiBytes',
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

const loadOf = ({ at, volumes }: CountersEntity): Body[] =>
  Object.entries(volumes).flatMap(([id, counted]) =>
    Object.entries(shownCounters(counted)).map(([name, text]) =>
      value(`Volumes/${id}/Metrics#/IOStatistics/${name}`, name, text, at),
    ),
  )

const metrics = ['ConsumedBytes', ...counters] as const
type MetricId = (typeof metrics)[number]

const metricBody = (id: MetricId): Body =>
  id === 'ConsumedBytes'
    ? { MetricType: 'Gauge', MetricDataType: 'Integer', Units: 'By', MetricProperties: spaceProperties }
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
    type: 'MetricReport.v1_5_1.MetricReport',
    title: 'Metric reports',
    members: () => reports,
    idOf: ({ id }) => id,
    nameOf: ({ name }) => name,
    body: ({ id, values }) => reportBody(array, id, values(array)),
  }),
]

const reportBody = (array: SimulatedArray, id: string, values: readonly Body[]): Body => ({
  Timestamp: new Date(array.clock.now()).toISOString(),
  ReportSequence: `${values.length}`,
  MetricReportDefinition: link(`TelemetryService/MetricReportDefinitions/${id}`),
  MetricValues: values,
  'MetricValues@odata.count': values.length,
})
