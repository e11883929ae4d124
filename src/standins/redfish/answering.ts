import { createHash } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { notFound, Refused, type SimulatedArray } from '../array'
import { root } from './body'
import type { Sessions } from './sessions'

/** Paths that DSP0266 leaves open to those who have not signed in. */
const openPaths = new Set(['/redfish', root, `${root}/odata`, `${root}/$metadata`])
const isOpen = (request: FastifyRequest) => {
  const path = request.url.replace(/\?.*$/, '').replace(/\/$/, '')
  if (request.method === 'POST') return path === `${root}/SessionService/Sessions`
  return openPaths.has(path) && (request.method === 'GET' || request.method === 'HEAD')
}

/** What holds for every answer of an array: faults in force, sign-in, entity tags, and errors in the standard's form. */
export function answering(server: FastifyInstance, array: SimulatedArray, sessions: Sessions): void {
  const { faults, model } = array
  server.addHook('onRequest', async (request, reply) => {
    if (faults.strikes(model.name, 'not-answering') !== undefined)
      return new Promise<never>(() => request.raw.socket.on('close', () => undefined))
    const slow = faults.strikes(model.name, 'slow')
    if (slow !== undefined) await pause(slow.milliseconds)
    const unavailable = faults.strikes(model.name, 'unavailable')
    if (unavailable !== undefined) {
      throw new Refused(
        503,
        'Base.1.18.ServiceTemporarilyUnavailable',
        { what: 'The service is busy.', why: 'It asks for patience.', remedy: 'Try again later.' },
        { headers: { 'Retry-After': `${unavailable.retryAfterSeconds}` } },
      )
    }
    if (!isOpen(request)) sessions.check(request.headers['x-auth-token']?.toString(), request.headers.authorization)
    reply.header('OData-Version', '4.0').header('Cache-Control', 'no-cache')
  })
  server.addHook('preSerialization', async (request, _reply, body: unknown) => {
    if (!isReading(request) || typeof body !== 'object' || body === null) return body
    if (faults.strikes(model.name, 'wrong-types') !== undefined) return wrongTypes(body)
    return body
  })
  server.addHook('onSend', async (request, reply, payload: unknown) => {
    if (!isReading(request) || reply.statusCode >= 400 || typeof payload !== 'string') return payload
    if (faults.strikes(model.name, 'malformed') !== undefined) return payload.slice(0, Math.floor(payload.length / 2))
    const tag = entityTag(payload)
    reply.header('ETag', tag)
    if (request.headers['if-none-match'] !== tag) return payload
    reply.code(304)
    return ''
  })
  server.setErrorHandler((cause, _, reply) => sendError(reply, cause))
  server.setNotFoundHandler((request, reply) => sendError(reply, notFound(request.url)))
}

const isReading = ({ method }: FastifyRequest) => method === 'GET' || method === 'HEAD'

const entityTag = (payload: string) => `"${createHash('sha256').update(payload).digest('base64url').slice(0, 22)}"`

/** Refuses a change whose If-Match names another state than the resource's own. Source: RFC 9110, 13.1.1. */
export function matchOrRefuse(request: FastifyRequest, body: object): void {
  const wanted = request.headers['if-match']
  if (wanted === undefined || wanted === '*' || wanted === entityTag(JSON.stringify(body))) return
  throw new Refused(412, 'Base.1.18.PreconditionFailed', {
    what: 'The change was not made.',
    why: 'The resource is not what it was when it was read.',
    remedy: 'Read it again.',
  })
}

/** The standard's form of an error, with a message of the registry. Source: DSP0266, error responses; Message schema. */
function sendError(reply: FastifyReply, cause: unknown): FastifyReply {
  const refused = cause instanceof Refused ? cause : undefined
  const thrown = cause as { readonly statusCode?: number; readonly code?: string; readonly message?: string }
  const status = refused?.status ?? thrown.statusCode ?? 500
  const isJson = thrown.code === 'FST_ERR_CTP_INVALID_JSON_BODY' || thrown.code === 'FST_ERR_CTP_EMPTY_JSON_BODY'
  const messageId =
    refused?.messageId ?? `Base.1.18.${isJson ? 'MalformedJSON' : status < 500 ? 'GeneralError' : 'InternalError'}`
  const message = refused?.message ?? thrown.message ?? 'unknown'
  const { headers, arguments: values, properties } = refused?.more ?? {}
  return reply
    .code(status)
    .headers(headers ?? {})
    .send({
      error: {
        code: messageId,
        message,
        '@Message.ExtendedInfo': [
          {
            '@odata.type': '#Message.v1_2_1.Message',
            MessageId: messageId,
            Message: message,
            MessageArgs: values ?? [],
            ...(properties === undefined ? {} : { RelatedProperties: properties }),
            MessageSeverity: status < 500 ? 'Warning' : 'Critical',
            Severity: status < 500 ? 'Warning' : 'Critical',
            Resolution: refused?.remedy ?? 'None.',
          },
        ],
      },
    })
}

/** Numbers become text and lists become objects: what a client that trusts blindly would choke on. */
function wrongTypes(value: unknown): unknown {
  if (typeof value === 'number') return `${value} units`
  if (Array.isArray(value)) return { list: value.map(wrongTypes) }
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, wrongTypes(each)]))
}
