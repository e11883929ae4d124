import Fastify, { type FastifyInstance } from 'fastify'
import type { SimulatedArray } from '../array'
import { answering } from './answering'
import { changeRoutes } from './changeRoutes'
import { eventStream } from './eventStream'
import { readRoutes } from './readRoutes'
import { rowRoutes } from './rowRoutes'
import type { RowService } from './RowService'
import { Sessions } from './sessions'

/** An array's management service over HTTP, not yet listening. */
export function redfishService(array: SimulatedArray, nodes?: RowService): FastifyInstance {
  const server = Fastify({ forceCloseConnections: true, routerOptions: { ignoreTrailingSlash: false } })
  const sessions = new Sessions(array)
  answering(server, array, sessions)
  readRoutes(server, array, sessions, nodes)
  changeRoutes(server, array, sessions, nodes)
  if (nodes !== undefined) rowRoutes(server, nodes.row, nodes.pools)
  eventStream(server, array)
  return server
}
