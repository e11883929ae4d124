import type { ValidateFunction } from 'ajv'
import Ajv from 'ajv/dist/2020.js'
import type { Sequelize } from 'sequelize'
import { formats, isUuid } from '@/core/input'
import { inTransaction, type ReadingScope, type Scope } from '@/records'
import { audit, type Act } from '@/records/audit'
import { defaultBodyBytes, operations, type Operation, type OperationId } from '../api/v1/contract'
import { context } from './context'
import { AccessRefused, BadRequest, NotThere, WrongMethod } from './errors'
import { peerAddress } from './peer'
import { readBody } from './readBody'
import { readQuery } from './readQuery'
import { json, refused } from './refused'
import { may } from './rights'
import { asker, refuseForeign, type Asker } from './session'

/** A request to the API whose asker is known and whose every part has passed its schema. */
export interface Asked {
  /** Nobody, for what is asked before signing in. */
  readonly who: Asker
  readonly body: Readonly<Record<string, unknown>>
  readonly query: Readonly<Record<string, string | number>>
  readonly id: string
  readonly request: Request
  /** The address that it came from. */
  readonly address: string
  readonly database: Sequelize
  readonly scope: ReadingScope
  readonly key: Buffer
  /** Does something and notes it, or neither. */
  readonly noted: <T>(act: Omit<Act, 'who' | 'address'>, work: (scope: Required<Scope>) => Promise<T>) => Promise<T>
}

export type Handlers = { readonly [Id in OperationId]: (asked: Asked) => Promise<unknown> }

const nobody: Asker = { id: '', name: '', by: { kind: 'session', id: '' } }
const methods = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const

// One fault is enough to refuse a body: looking for all of them is work that whoever sends it decides on.
const ajv = new Ajv({ allErrors: false, formats })
const compiled = new Map<OperationId, { isBody: ValidateFunction | undefined; isQuery: ValidateFunction }>()

function validatorsOf(id: OperationId): { isBody: ValidateFunction | undefined; isQuery: ValidateFunction } {
  const { body, query = {}, requiredQuery = [] } = operations[id]
  const made = compiled.get(id) ?? {
    isBody: body === undefined ? undefined : ajv.compile(body),
    isQuery: ajv.compile({ type: 'object', additionalProperties: false, required: requiredQuery, properties: query }),
  }
  compiled.set(id, made)
  return made
}

/** Which operations stand at a path, by method, and the id in it. */
function at(path: string): { readonly byMethod: Map<string, OperationId>; readonly id: string } {
  const parts = path.split('/')
  const byMethod = new Map<string, OperationId>()
  let id = ''
  for (const [operationId, operation] of Object.entries(operations) as [OperationId, Operation][]) {
    const wanted = operation.path.split('/')
    if (wanted.length !== parts.length) continue
    if (!wanted.every((part, index) => part === parts[index] || (part === '{id}' && parts[index] !== ''))) continue
    byMethod.set(operation.method.toUpperCase(), operationId)
    if (wanted.includes('{id}')) id = parts[wanted.indexOf('{id}')] ?? ''
  }
  return { byMethod, id }
}

/** A process that has just come up answers before it has compiled what nobody has asked for yet. */
const restMilliseconds = 2000
const pauseMilliseconds = 25

/** Compiles one after another, so that whoever asks meanwhile waits for one at most. */
function compileLater(ids: readonly OperationId[], after = restMilliseconds): void {
  const [next, ...others] = ids
  if (next === undefined) return
  setTimeout(() => {
    validatorsOf(next)
    compileLater(others, pauseMilliseconds)
  }, after).unref()
}

/** Answers every request below /api/v1 by the contract: who asks is known before anything of the request is read. */
export function answering(handlers: Handlers): (request: Request) => Promise<Response> {
  compileLater(Object.keys(operations) as OperationId[])
  return async request => {
    try {
      return await answered(handlers, request)
    } catch (cause) {
      return refused(cause)
    }
  }
}

async function answered(handlers: Handlers, request: Request): Promise<Response> {
  const url = new URL(request.url)
  const { byMethod, id } = at(url.pathname.replace(/^\/api\/v1/, ''))
  if (byMethod.size === 0) throw new NotThere('The path')
  const allowed = [...methods.filter(each => byMethod.has(each)), ...(byMethod.has('GET') ? ['HEAD'] : []), 'OPTIONS']
  if (request.method === 'OPTIONS') return new Response(null, { status: 204, headers: { Allow: allowed.join(', ') } })
  const operationId = byMethod.get(request.method === 'HEAD' ? 'GET' : request.method)
  if (operationId === undefined) throw new WrongMethod(request.method, allowed)
  const operation: Operation = operations[operationId]
  const who = await askerOf(operation, request)
  if (id !== '' && !isUuid(id)) throw new BadRequest('The id in the path is no UUID.')
  const { isBody, isQuery } = validatorsOf(operationId)
  const query = readQuery(url.searchParams, operation.query ?? {}, isQuery)
  const body =
    isBody === undefined ? {} : checkedBody(await readBody(request, operation.bodyBytes ?? defaultBodyBytes), isBody)
  const { database, key, memory } = context()
  const address = peerAddress(request.headers)
  const isReading = operation.method === 'get'
  const work = handlers[operationId]({
    who,
    body,
    query,
    id,
    request,
    address,
    database,
    scope: isReading ? { database, memory } : { database },
    key,
    noted: (act, work) =>
      inTransaction(database, async scope => {
        const done = await work(scope)
        await audit(scope, { ...act, who: who.name, address })
        return done
      }),
  })
  // What it has changed is read by whoever hears the answer.
  const changesNothing = isReading || operation.right === 'read'
  const result = await (changesNothing ? work : work.finally(() => memory.forget()))
  return asAnswer(result, operation.status ?? 200, request.method === 'HEAD')
}

/** Who asks. @throws {AccessRefused} where nobody is signed in, or where they have no right to it */
async function askerOf(operation: Operation, { headers }: Request): Promise<Asker> {
  const isReading = operation.method === 'get'
  if (operation.isOpen === true) {
    if (!isReading) refuseForeign(headers)
    return nobody
  }
  const who = await asker(headers, isReading)
  if (may(who, operation.right ?? (isReading ? 'read' : 'change'))) return who
  throw new AccessRefused(
    403,
    'access.not-allowed',
    'The request was not carried out.',
    'You have no right to it.',
    'Ask an administrator.',
  )
}

function checkedBody(body: unknown, isBody: ValidateFunction): Readonly<Record<string, unknown>> {
  if (isBody(body)) return body as Readonly<Record<string, unknown>>
  const first = isBody.errors?.[0]
  const extra: unknown = first?.params['additionalProperty']
  throw new BadRequest(
    typeof extra === 'string'
      ? `${first?.instancePath.slice(1) || 'The body'} must not have ${JSON.stringify(extra.slice(0, 60))}.`
      : `${first?.instancePath.slice(1) || 'The body'} ${first?.message ?? 'is not what the document says'}.`,
  )
}

async function asAnswer(result: unknown, status: number, isHead: boolean): Promise<Response> {
  const whole =
    result instanceof Response
      ? result
      : result === undefined
        ? new Response(null, { status: 204 })
        : json(result, status)
  if (!isHead) return whole
  await whole.body?.cancel()
  return new Response(null, { status: whole.status, headers: whole.headers })
}
