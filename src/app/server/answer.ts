import type { ValidateFunction } from 'ajv'
import Ajv from 'ajv/dist/2020.js'
import { refusalOf, WendrelError } from '@/core/errors'
import { operations, type OperationId } from '../api/v1/contract'
import { AccessRefused, BadRequest } from './errors'
import { asker, type Asker } from './session'

export interface Asked {
  readonly who: Asker
  readonly body: Readonly<Record<string, unknown>>
  readonly query: URLSearchParams
  readonly id: string
  readonly request: Request
}

type Handler = (
  request: Request,
  route: { readonly params: Promise<Readonly<Record<string, string>> | undefined> },
) => Promise<Response>

const ajv = new Ajv({ allErrors: true, formats: { bytes: true, uuid: true, uri: true, 'date-time': true } })
const isId = (text: string) => /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/.test(text)

/** A route of the API: who asks is known and the body has passed its schema before `work` runs; every error becomes a body that says why. */
export function answer(operation: OperationId, work: (asked: Asked) => Promise<unknown>, status = 200): Handler {
  const schema = operations[operation].body
  // Compiled when the route is loaded, so that the first to draft something does not wait for it.
  const isBody = schema === undefined ? undefined : ajv.compile(schema)
  return async (request, route) => {
    try {
      const who = operations[operation].isOpen === true ? { id: '', name: '' } : await asker(request.method)
      const id = (await route.params)?.['id'] ?? ''
      if (id !== '' && !isId(id)) throw new BadRequest('The id in the path is no UUID.')
      const body = await readBody(isBody, request)
      const result = await work({ who, body, query: new URL(request.url).searchParams, id, request })
      if (result instanceof Response) return result
      return result === undefined ? new Response(null, { status: 204 }) : json(result, status)
    } catch (cause) {
      return refused(cause)
    }
  }
}

async function readBody(
  isBody: ValidateFunction | undefined,
  request: Request,
): Promise<Readonly<Record<string, unknown>>> {
  if (isBody === undefined) return {}
  const body: unknown = await request.json().catch(() => undefined)
  if (isBody(body)) return body as Readonly<Record<string, unknown>>
  const first = isBody.errors?.[0]
  throw new BadRequest(`${first?.instancePath.slice(1) || 'The body'} ${first?.message ?? 'is not JSON'}.`)
}

/** JSON in which bytes are decimal text. */
const json = (value: unknown, status = 200) =>
  new Response(
    JSON.stringify(value, (_, each: unknown) => (typeof each === 'bigint' ? `${each}` : each)),
    { status, headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' } },
  )

const statusByCode: Readonly<Record<string, number>> = {
  'drafting.no-such-change': 404,
  'drafting.no-draft': 409,
  'drafting.plan-stale': 409,
  'drafting.not-now': 409,
  'drafting.not-ready': 422,
  'drafting.no-address': 422,
  'change.intent-refused': 400,
  'change.unknown-kind': 400,
  'api.not-there': 404,
  'api.bad-request': 400,
}

function refused(cause: unknown): Response {
  const refusal = refusalOf(cause)
  if (cause instanceof AccessRefused) return json(refusal, cause.status)
  if (isDatabaseAway(cause)) {
    return json(
      {
        code: 'records.away',
        what: 'The records cannot be reached.',
        why: 'The database does not answer.',
        remedy: 'Nothing is lost: what you typed stays here. It is tried again when you go on.',
      },
      503,
    )
  }
  if (!(cause instanceof WendrelError)) console.error(cause)
  return json(refusal, statusByCode[refusal.code] ?? (/^(redfish|connection|host)\./.test(refusal.code) ? 422 : 500))
}

const isDatabaseAway = (cause: unknown) => cause instanceof Error && /^Sequelize.*(Connection|Host)/.test(cause.name)
