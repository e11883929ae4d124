import type { FastifyInstance } from 'fastify'
import type { SimulatedArray } from '../array'
import type { Entry } from '../fleet'
import { sentLoads } from './resources/telemetry'

const pathByCollection: Readonly<Record<string, string>> = {
  pools: 'Storage/1/StoragePools',
  volumes: 'Storage/1/Volumes',
  tasks: 'TaskService/Tasks',
  connections: 'Fabrics/SAN/Connections',
  groups: 'Fabrics/SAN/EndpointGroups',
  nodes: 'Systems',
  nodePorts: 'Systems',
  switchPorts: 'Fabrics/Row/Switches',
  clusters: 'AggregationService/Aggregates',
}

/** What has changed and what was counted, as server-sent events. Source: DSP0266, server-sent events; Event.v1_10. */
export function eventStream(server: FastifyInstance, array: SimulatedArray): void {
  server.get('/redfish/v1/EventService/SSE', (request, reply) => {
    reply.hijack()
    reply.raw.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache' })
    let number = 0
    const write = (body: object) => {
      number += 1
      reply.raw.write(`id: ${number}\ndata: ${JSON.stringify(body)}\n\n`)
    }
    const send = (entries: readonly Entry[]) => {
      if (entries.some(({ collection }) => collection === `${array.model.name}/loadCounters`)) write(sentLoads(array))
      const events = entries.flatMap(entry => {
        const [owner, kind = ''] = entry.collection.split('/')
        if (owner !== array.model.name) return []
        const path =
          kind === 'drives'
            ? `Chassis/${(entry.value as { enclosureId?: string } | null)?.enclosureId ?? ''}/Drives`
            : pathByCollection[kind]
        if (path === undefined) return []
        const what = entry.value === null ? 'ResourceRemoved' : 'ResourceChanged'
        return [
          {
            EventType: 'Other',
            MessageId: `ResourceEvent.1.4.${what}`,
            OriginOfCondition: { '@odata.id': `/redfish/v1/${path}/${entry.id}` },
          },
        ]
      })
      if (events.length === 0) return
      write({ '@odata.type': '#Event.v1_10_0.Event', Id: `${number + 1}`, Name: 'Event', Events: events })
    }
    const beat = setInterval(() => reply.raw.write(': still here\n\n'), 15_000)
    array.store.changes.on('commit', send)
    request.raw.on('close', () => {
      clearInterval(beat)
      array.store.changes.off('commit', send)
    })
  })
}
