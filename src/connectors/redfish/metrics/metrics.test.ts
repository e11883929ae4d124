import { collection, link, lying, reach, root, serviceRoot, type Body } from '../testing/lyingSystem'

const pool = `${root}/Storage/1/StoragePools/p`
const value = (text: unknown, at: unknown, property: unknown = `${pool}#/Capacity/Data/ConsumedBytes`): Body => ({
  MetricId: 'ConsumedBytes',
  MetricProperty: property,
  MetricValue: text,
  Timestamp: at,
})
const definition = (id: string, every: string | undefined, span: string | undefined, more: Body = {}): Body => ({
  ...link(`TelemetryService/MetricReportDefinitions/${id}`),
  Id: id,
  Name: id,
  ...(every === undefined ? {} : { Schedule: { RecurrenceInterval: every } }),
  ...(span === undefined ? {} : { ReportTimespan: span }),
  MetricReport: link(`TelemetryService/MetricReports/${id}`),
  ...more,
})
const report = (values: unknown, more: Body = {}): Body => ({ MetricValues: values as readonly Body[], ...more })
const telemetry = (definitions: readonly Body[], reports: Readonly<Record<string, Body>>) => ({
  [`GET ${root}/TelemetryService`]: {
    ...link('TelemetryService'),
    MetricReportDefinitions: link('TelemetryService/MetricReportDefinitions'),
  },
  [`GET ${root}/TelemetryService/MetricReportDefinitions`]: collection(
    'TelemetryService/MetricReportDefinitions',
    definitions,
  ),
  ...Object.fromEntries(
    Object.entries(reports).map(([id, body]) => [`GET ${root}/TelemetryService/MetricReports/${id}`, body]),
  ),
})
const noon = '2026-05-04T12:00:00Z'
const day = 86_400_000

async function read(pages: Record<string, Body>, since: Date) {
  const withTelemetry = { ...serviceRoot, TelemetryService: link('TelemetryService') }
  const { address, heard } = await lying({ [`GET ${root}`]: withTelemetry, ...pages })
  const metrics = await reach(address).of('metrics')
  const samples = await metrics.levelsSince(since, new Date())
  const reports = heard.flatMap(({ url }) => /MetricReports\/(\w+)/.exec(url)?.[1] ?? [])
  return { samples, reports }
}

test('each value is read by itself: what is no number or has no time is told as such, and other properties are left out', async () => {
  const { samples } = await read(
    telemetry([definition('A', 'PT1H', 'P800D')], {
      A: report([
        value('4096', noon),
        value(4096, noon),
        value('NaN', noon),
        value('0x10', noon),
        value('1e3', 'yesterday'),
        value('5', noon, `${pool}#/Name`),
        value('5', noon, pool),
        value('5', noon, 7),
        value('7', '2026-05-04T14:00:00+02:00', `'; drop table pools; --#/Capacity/Data/ConsumedBytes`),
      ]),
    }),
    new Date('2026-05-01T00:00:00Z'),
  )
  const at = Date.parse(noon)
  expect(samples.map(each => [each.locator, each.at, each.value])).toEqual([
    [pool, at, 4096],
    [pool, at, NaN],
    [pool, at, NaN],
    [pool, at, NaN],
    [pool, NaN, 1000],
    ["'; drop table pools; --", at, 7],
  ])
})

test('the finest reports are read that reach far enough, and those that do not say how far', async () => {
  const definitions = [
    definition('Days', 'P1D', 'P900D'),
    definition('Hours', 'PT1H', 'P8D'),
    definition('Off', 'PT1M', 'P900D', { MetricReportDefinitionEnabled: false }),
    definition('Some', undefined, undefined),
  ]
  const pages = telemetry(definitions, { Days: report([]), Hours: report([]), Some: report([]), Off: report([]) })
  const near = await read(pages, new Date(Date.now() - 2 * day))
  expect(near.reports.sort()).toEqual(['Hours', 'Some'])
  const far = await read(pages, new Date(Date.now() - 100 * day))
  expect(far.reports.sort()).toEqual(['Days', 'Hours', 'Some'])
})

test('errors of drives are of the drive, wherever it states them; what space reaches back to says nothing of them', async () => {
  const bay = `${root}/Chassis/1/Drives/7`
  const errors = 'CorrectableIOReadErrorCount'
  const named = (...MetricProperties: string[]) => ({ MetricProperties })
  const pages = telemetry(
    [
      definition('Space', 'PT1H', 'P900D', named('/x#/Capacity/Data/ConsumedBytes')),
      definition('Within', 'P1D', 'P30D', named(`/d#/Metrics/${errors}`)),
      definition('Beside', 'P1D', 'P30D', named(`/d/Metrics#/${errors}`)),
    ],
    {
      Space: report([value('1', noon)]),
      Within: report([value('12', noon, `${bay}#/Metrics/${errors}`)]),
      Beside: report([value('13', noon, `${bay}/Metrics#/${errors}`)]),
    },
  )
  const { samples, reports } = await read(pages, new Date(Date.parse(noon) - day))
  expect(reports.sort()).toEqual(['Beside', 'Space', 'Within'])
  expect(samples.map(({ locator, metric, value: found }) => [locator, metric, found])).toEqual([
    [pool, 'written', 1],
    [bay, 'errors', 12],
    [bay, 'errors', 13],
  ])
})

test('pages of a report are followed, and a ring of them ends', async () => {
  const next = (id: string) => ({ 'MetricValues@odata.nextLink': `${root}/TelemetryService/MetricReports/${id}` })
  const pages = telemetry([definition('A', 'PT1H', 'P800D')], {
    A: report([value('1', noon)], next('B')),
    B: report([value('2', noon)]),
  })
  const { samples } = await read(pages, new Date(0))
  expect(samples.map(each => each.value)).toEqual([1, 2])
  const ring = telemetry([definition('A', 'PT1H', 'P800D')], {
    A: report([value('1', noon)], next('B')),
    B: report([value('2', noon)], next('A')),
  })
  await expect(read(ring, new Date(0))).rejects.toMatchObject({ code: 'connection.unreadable-answer' })
})

test('a report of more values than a call takes arguments is read whole', async () => {
  const many = Array.from({ length: 140_000 }, (_, index) =>
    value('1', noon, `/v/${index}#/Capacity/Data/ConsumedBytes`),
  )
  const pages = telemetry([definition('A', 'PT1H', 'P800D')], { A: report(many) })
  const { samples } = await read(pages, new Date('2026-05-01T00:00:00Z'))
  expect([samples.length, samples.at(-1)?.locator]).toEqual([140_000, '/v/139999'])
})

test('a system without telemetry says so, and values that are no list are refused', async () => {
  const { address } = await lying({})
  await expect(
    reach(address)
      .of('metrics')
      .then(each => each.levelsSince(new Date(0), new Date())),
  ).rejects.toMatchObject({
    code: 'system.not-offered',
  })
  const odd = telemetry([definition('A', 'PT1H', 'P800D')], { A: report('many') })
  await expect(read(odd, new Date(0))).rejects.toMatchObject({ code: 'connection.unreadable-answer' })
})

test('counters of one volume and instant belong together; what is missing or no number is told as such', async () => {
  const counter = (name: string, text: unknown, at: string, volume = 1) =>
    value(text, at, `${root}/Storage/1/Volumes/${volume}/Metrics#/IOStatistics/${name}`)
  const later = '2026-05-04T13:00:00Z'
  const pages = telemetry(
    [definition('A', 'PT1M', 'P800D', { MetricProperties: ['/x#/IOStatistics/ReadIORequests'] })],
    {
      A: report([
        counter('ReadIORequests', '7', noon),
        counter('ReadIORequestTime', 'PT1M0.5S', noon),
        counter('WriteIORequests', '9', noon),
        counter('ReadHitIORequests', '5', noon),
        counter('WriteIOKiBytes', '72', noon),
        counter('ReadIOKiBytes', '56', noon),
        counter('WriteIORequestTime', 'three minutes', noon),
        counter('ReadIORequests', '8', later),
        counter('ReadIORequests', '1', noon, 2),
      ]),
    },
  )
  const withTelemetry = { ...serviceRoot, TelemetryService: link('TelemetryService') }
  const { address, heard } = await lying({ [`GET ${root}`]: withTelemetry, ...pages })
  const metrics = await reach(address).of('metrics')
  const at = Date.parse(noon)
  expect(await metrics.countersSince(new Date(0), new Date())).toEqual([
    {
      ...{ locator: `${root}/Storage/1/Volumes/1`, at, readRequests: 7, writeRequests: 9, readHits: 5 },
      ...{ readKibibytes: 56, writeKibibytes: 72, readSeconds: 60.5, writeSeconds: NaN },
    },
    expect.objectContaining({ at: Date.parse(later), readRequests: 8, writeRequests: NaN }),
    expect.objectContaining({ locator: `${root}/Storage/1/Volumes/2`, at, readRequests: 1 }),
  ])
  // A report that says that it has no levels is not read for them.
  const before = heard.length
  expect(await metrics.levelsSince(new Date(0), new Date())).toEqual([])
  expect(heard.slice(before).some(({ url }) => url.includes('MetricReports/A'))).toBe(false)
})
