import type { ValidateFunction } from 'ajv'
import { mayBeUnstorable, outOfBounds } from '@/core/input'
import { UnreadableAnswer, urlWithin, type Endpoint, type Exchanged } from '../http'
import { RequestRefused } from '@/ports'
import { isErrorBody } from './schema'

/** An answer that is no refusal. */
export interface Answered {
  readonly body: unknown
  /** Where something was made, or the task that makes it: as a path of the system. */
  readonly location: string | null
  readonly status: number
  readonly etag: string | null
}

/** What a system names, as a path of its own. @throws {LeftOrigin} where it lies elsewhere */
export function pathWithin(endpoint: Endpoint, location: string): string {
  const { pathname, search } = urlWithin(endpoint, location)
  return `${pathname}${search}`
}

/** @throws {RequestRefused | UnreadableAnswer | LeftOrigin} */
export function answered(endpoint: Endpoint, method: string, path: string, answer: Exchanged): Answered {
  if (answer.status >= 400) throw refusal(method, path, answer)
  const { location, etag } = answer.headers
  const body = answer.text === '' ? undefined : parsed(path, answer.text)
  // Some say where something was made by what they made alone.
  const place =
    location ?? (answer.status === 201 ? (body as { readonly '@odata.id'?: unknown } | null)?.['@odata.id'] : undefined)
  return {
    body,
    location: typeof place === 'string' ? pathWithin(endpoint, place) : null,
    status: answer.status,
    etag: typeof etag === 'string' ? etag : null,
  }
}

export function refusal(method: string, path: string, answer: Exchanged): RequestRefused {
  const retryAfter = Number(answer.headers['retry-after'])
  return new RequestRefused(
    `${method} ${path}`,
    answer.status,
    said(answer.text),
    Number.isFinite(retryAfter) ? retryAfter : null,
  )
}

/** A resource, or each member of a collection: so that a bad one is left out, and not the whole collection with it. */
function doubt(body: unknown): void {
  if (typeof body !== 'object' || body === null) return
  const { Members } = body as { readonly Members?: unknown }
  if (!Array.isArray(Members)) return void isDoubtful.add(body)
  for (const member of Members as unknown[]) if (typeof member === 'object' && member !== null) isDoubtful.add(member)
}

function said(text: string): { message: string; resolution: string } | undefined {
  try {
    const body: unknown = JSON.parse(text)
    if (!isErrorBody(body)) return undefined
    const first = body.error['@Message.ExtendedInfo']?.[0]
    return { message: first?.Message ?? body.error.message ?? '', resolution: first?.Resolution ?? '' }
  } catch {
    return undefined // a refusal without a readable body is still a refusal, told by its status
  }
}

/** Deep and wide enough for any one resource of the standard. */
const bounds = { depth: 32, members: 100_000 }
/** Where something cannot be kept, what it stands in is looked through. */
const isDoubtful = new WeakSet<object>()

function parsed(path: string, text: string): unknown {
  try {
    const body: unknown = JSON.parse(text)
    if (mayBeUnstorable(text)) doubt(body)
    return body
  } catch (cause) {
    throw new UnreadableAnswer(path, 'It is not whole JSON.', { cause })
  }
}

/** @throws {UnreadableAnswer} where the body is not what the schema says */
export function checked<T>(path: string, body: unknown, isAnswer: ValidateFunction<T>): T {
  if (isAnswer(body)) {
    const why = isDoubtful.has(body as object) ? outOfBounds(body, bounds) : undefined
    if (why !== undefined) throw new UnreadableAnswer(path, why)
    return body
  }
  const first = isAnswer.errors?.[0]
  throw new UnreadableAnswer(path, `${first?.instancePath || 'The body'} ${first?.message ?? 'breaks the schema'}.`)
}

/** Whether what was asked for is not there, or no longer. */
export const isGone = (cause: unknown) =>
  cause instanceof RequestRefused && (cause.status === 404 || cause.status === 410)

/** Whether what was to be changed is otherwise than it was read: nothing has been done. Source: RFC 9110, 13.1.1. */
export const isOtherwise = (cause: unknown) => cause instanceof RequestRefused && cause.status === 412

/** Whether only a link stands where a resource may. */
export const isLink = (value: object) => Object.keys(value).length === 1 && '@odata.id' in value

const mostPatientSeconds = 30

/** How long a system that is busy wants to be left alone, within reason. */
export function patienceSeconds({ headers }: Exchanged): number {
  const wanted = Number(headers['retry-after'] ?? 1)
  return Math.min(mostPatientSeconds, Math.max(0, Number.isFinite(wanted) ? wanted : 1))
}
