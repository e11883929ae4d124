import type { FastifyInstance, FastifyReply, FastifyRequest, HTTPMethods } from 'fastify'
import { notFound, Refused } from '../array'
import { matchOrRefuse } from './answering'
import { root, type Body } from './body'
import type { Ids, Outcome, Place } from './Place'
import { collection, readQuery, selected } from './query'
import { taskBody } from './resources/tasks'

type Query = Readonly<Record<string, unknown>>
const methods = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const

/** Answers for all places of a service; other methods than a place has are told by 405 with those that it has. */
export function serve(server: FastifyInstance, places: readonly Place[]): void {
  for (const place of places) {
    const url = place.path === '' ? root : `${root}/${place.path}`
    const handlers = handlersOf(place)
    const allowed = methods.filter(method => handlers[method] !== undefined)
    for (const method of allowed) {
      const handle = handlers[method]
      if (handle !== undefined)
        server.route<{ Params: Ids; Querystring: Query }>({ method: method as HTTPMethods, url, handler: handle })
    }
    const others = methods.filter(method => handlers[method] === undefined)
    server.route({
      method: [...others],
      url,
      handler: request => {
        throw new Refused(
          405,
          'Base.1.18.OperationNotAllowed',
          {
            what: 'The request was not carried out.',
            why: `${request.method} is not offered at ${request.url}.`,
            remedy: `Offered there: ${allowed.join(', ')}.`,
          },
          { headers: { Allow: allowed.flatMap(each => (each === 'GET' ? ['GET', 'HEAD'] : [each])).join(', ') } },
        )
      },
    })
  }
}

type Handle = (request: FastifyRequest<{ Params: Ids; Querystring: Query }>, reply: FastifyReply) => unknown

function handlersOf(place: Place): Partial<Record<(typeof methods)[number], Handle>> {
  const { show, list, post, patch, remove } = place
  return {
    ...(show === undefined && list === undefined ? {} : { GET: reading(place) }),
    ...(post === undefined
      ? {}
      : {
          POST: (request, reply) => {
            standing(place, request)
            return send(reply, post(request.body ?? {}, request.params))
          },
        }),
    ...(patch === undefined
      ? {}
      : {
          PATCH: (request, reply) => {
            standing(place, request)
            const outcome = patch(request.body, request.params)
            return outcome === undefined ? show?.(request.params) : send(reply, outcome)
          },
        }),
    ...(remove === undefined
      ? {}
      : {
          DELETE: (request, reply) => {
            standing(place, request)
            remove(request.params)
            return reply.code(204).send()
          },
        }),
  }
}

/** What stands there, which a change is of. @throws {Refused} where nothing does, or where it is not what the request expects */
function standing({ show, subject = show, list }: Place, request: FastifyRequest<{ Params: Ids }>): void {
  if (list !== undefined && list(request.params) === undefined) throw notFound(request.url)
  if (subject === undefined) return
  const body = subject(request.params)
  if (body === undefined) throw notFound(request.url)
  matchOrRefuse(request, body)
}

const reading =
  ({ show, list }: Place): Handle =>
  ({ params, query, url }) => {
    const asked = readQuery(query, list !== undefined)
    if (list !== undefined) {
      const listing = list(params)
      if (listing === undefined) throw notFound(url)
      return collection(pathOf(url), listing, asked)
    }
    const body = show?.(params)
    if (body === undefined) throw notFound(url)
    return selected(body, asked.select)
  }

const pathOf = (url: string) =>
  url
    .replace(/\?.*$/, '')
    .replace(/\/$/, '')
    .slice(root.length + 1)

/** 201 with the place of what is new, 202 with the monitor of long work, else 204. Source: DSP0266, POST; asynchronous operations. */
function send(reply: FastifyReply, outcome: Outcome): FastifyReply {
  if (outcome === undefined) return reply.code(204).send()
  if ('task' in outcome)
    return reply
      .code(202)
      .header('Location', `${root}/TaskService/TaskMonitors/${outcome.task.id}`)
      .send(taskBody(outcome.task))
  const made: Body = outcome.made
  return reply
    .code(201)
    .headers({ ...outcome.headers, Location: String(made['@odata.id']) })
    .send(made)
}
