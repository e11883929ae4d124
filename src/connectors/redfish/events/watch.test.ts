import { redfish } from '..'
import { link, lying, never, reach, root, serviceRoot, type Body, type Page } from '../testing/lyingSystem'

const { identify } = redfish
const stops: AbortController[] = []
afterEach(() => stops.splice(0).forEach(stop => stop.abort()))

/** A system that writes the parts of a stream one after another. */
const streaming = (parts: readonly string[], isEncrypted = false) =>
  lying(
    {
      [`GET ${root}`]: { ...serviceRoot, EventService: link('EventService') },
      [`GET ${root}/EventService`]: { ServerSentEventUri: `${root}/its/own/stream` },
      [`GET ${root}/its/own/stream`]: ((_, response) => {
        response.writeHead(200, { 'Content-Type': 'text/event-stream' })
        parts.forEach((part, index) => setTimeout(() => response.write(part), index * 15))
        return undefined
      }) satisfies Page,
    },
    isEncrypted,
  )
const event = (place: string) => JSON.stringify({ Events: [{ OriginOfCondition: { '@odata.id': place } }] })
const report = (values: readonly Body[]) =>
  JSON.stringify({ '@odata.type': '#MetricReport.v1_5_1.MetricReport', MetricValues: values })

/** What a system tells until so much was told. */
async function told(address: string, count: number) {
  const stop = new AbortController()
  stops.push(stop)
  const all: { readonly changed?: readonly string[]; readonly counted?: readonly object[] }[] = []
  let ended = false
  await new Promise<void>((resolve, reject) => {
    const note = (each: (typeof all)[number]) => {
      all.push(each)
      if (all.length === count) resolve()
    }
    const ears = {
      changed: (changed: readonly string[]) => note({ changed }),
      counted: (counted: readonly object[]) => note({ counted }),
    }
    void reach(address)
      .watch(ears, stop.signal)
      .then(() => {
        ended = true
        resolve()
      }, reject)
  })
  return { all, ended }
}

test('an event stream holds the same pin, and hands on where something has happened', async () => {
  const origin = `${root}/Storage/1/Volumes/1`
  const text = event(origin)
  const { address } = await streaming([`data: ${text.slice(0, 20)}`, `${text.slice(20)}\n\n`], true)
  const { certificateFingerprint } = await identify({ address }, never)
  const system = reach(address, { acceptedFingerprint: certificateFingerprint ?? '' })
  const stop = new AbortController()
  const heard = await new Promise<readonly string[]>(
    resolve => void system.watch({ changed: resolve, counted: () => undefined }, stop.signal),
  )
  stop.abort()
  expect(heard).toEqual([origin])
  expect(await system.parts([origin])).toMatchObject({ volumes: [{ name: 'volume-1' }] })
  expect(await system.parts([`${root}/Chassis/1/Drives/1`])).toBeUndefined()
})

test('a stream that lies on another system is not asked for', async () => {
  const { address } = await lying({
    [`GET ${root}`]: { ...serviceRoot, EventService: link('EventService') },
    [`GET ${root}/EventService`]: { ServerSentEventUri: 'http://127.0.0.1:9/' },
  })
  await expect(told(address, 1)).rejects.toMatchObject({ code: 'connection.left-origin' })
})

test('an event over several lines, with comments and by other line ends, is one event', async () => {
  const lines = JSON.stringify(
    { Events: [{ OriginOfCondition: link('a') }, { OriginOfCondition: link('b') }] },
    null,
    1,
  )
  const sent = `: beat\r\nid: 1\r\nevent: alert\r\n${lines.replace(/^/gm, 'data: ').replaceAll('\n', '\r\n')}\r\n\r\n`
  const { address } = await streaming([sent.slice(0, 60), sent.slice(60)])
  expect((await told(address, 1)).all).toEqual([{ changed: [`${root}/a`, `${root}/b`] }])
})

test.each([
  ['cut between the two halves of a line’s end', ['data: {"Events":', ' []}\r', '\n\r', '\n: beat\r\n']],
  ['with the old line ends', ['data: {"Events": []}\r', '\r', ': beat\r\r']],
  ['after a million empty lines', ['\n'.repeat(1_000_000), 'data: {"Events": []}\n\n']],
  ['in as many parts as it has letters', [...'data: {"Events": []}\n\n']],
])('an event %s is one event', async (_, parts) => {
  const { address } = await streaming(parts)
  expect((await told(address, 1)).all).toEqual([{ changed: [] }])
})

test('a metric report is handed on as what was counted; its bad values are told as such, and nothing is read for it', async () => {
  const value = (name: string, text: unknown) => ({
    ...{ MetricId: name, MetricValue: text, Timestamp: '2026-05-04T12:00:00Z' },
    MetricProperty: `${root}/Storage/1/Volumes/1/Metrics#/IOStatistics/${name}`,
  })
  const values = [value('ReadIORequests', '7'), value('WriteIORequests', 'many'), { MetricProperty: 4 }, {}]
  const { address } = await streaming([`data: ${report(values)}\n\n`, `data: ${event('/here')}\n\n`])
  expect((await told(address, 2)).all).toEqual([
    {
      counted: [
        expect.objectContaining({
          ...{ locator: `${root}/Storage/1/Volumes/1`, at: Date.UTC(2026, 4, 4, 12) },
          ...{ readRequests: 7, writeRequests: Number.NaN },
        }),
      ],
    },
    { changed: ['/here'] },
  ])
})

test('a report whose properties are called as what every object has tells nothing, and ends nothing', async () => {
  const values = ['constructor', '__proto__', 'toString'].map(name => ({
    MetricProperty: `${root}/x#${name}`,
    MetricValue: '1',
  }))
  const { address } = await streaming([`data: ${report(values)}\n\n`, `data: ${event('/here')}\n\n`])
  expect((await told(address, 2)).all).toEqual([{ counted: [] }, { changed: ['/here'] }])
})

test.each([
  ['no JSON', 'data: {"Events": [\n\n'],
  ['another list', 'data: {"Events": 7}\n\n'],
  ['a report without values', 'data: {"MetricValues": "many"}\n\n'],
])('%s says that something has changed all the same', async (_, part) => {
  const { address } = await streaming([part])
  expect((await told(address, 1)).all).toEqual([{ changed: [] }])
})

test('an event without an end is not waited for', async () => {
  const mebibyte = 'x'.repeat(1024 ** 2)
  for (const part of [mebibyte, `${mebibyte}\n: more\ndata: `]) {
    const { address } = await streaming([`data: ${event('/a')}\n\ndata: `, ...Array.from({ length: 18 }, () => part)])
    expect(await told(address, 2)).toEqual({ all: [{ changed: ['/a'] }], ended: true })
  }
})
