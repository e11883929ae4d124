import Fastify, { type FastifyInstance } from 'fastify'
import { notFound, type SimulatedArray } from '../array'
import { answering } from './answering'
import { root } from './body'
import { eventStream } from './eventStream'
import { metadata, serviceDocument } from './metadata'
import { allPlaces } from './resources'
import { monitored } from './resources/tasks'
import { shownAt, type Place } from './Place'
import type { RowService } from './RowService'
import { serve } from './serve'
import { Sessions } from './sessions'

/** An array's management service over HTTP, not yet listening. */
export function redfishService(array: SimulatedArray, nodes?: RowService): FastifyInstance {
  const server = Fastify({ forceCloseConnections: true, routerOptions: { ignoreTrailingSlash: true } })
  const sessions = new Sessions(array)
  const places = allPlaces(array, sessions, nodes)
  answering(server, array, sessions)
  serve(server, places)
  server.get('/redfish', () => ({ v1: `${root}/` }))
  server.get(`${root}/odata`, () => serviceDocument(nodes !== undefined))
  server.get(`${root}/$metadata`, (_, reply) =>
    reply.type('application/xml').send(metadata(places.flatMap(place => place.type ?? []))),
  )
  taskMonitors(server, array, places)
  eventStream(server, array)
  return server
}

function taskMonitors(server: FastifyInstance, array: SimulatedArray, places: readonly Place[]): void {
  server.get<{ Params: { task: string } }>(`${root}/TaskService/TaskMonitors/:task`, (request, reply) => {
    const task = array.maybe('tasks', request.params.task)
    if (task === undefined) throw notFound(request.url)
    const { status, location, body } = monitored(task, path => shownAt(places, path))
    return reply.code(status).header('Location', location).send(body)
  })
}
