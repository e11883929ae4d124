import { randomUUID } from 'node:crypto'
import { refusalOf, WendrelError } from '@/core/errors'
import { toJson } from '@/core/input'
import { isDatabaseAway } from '@/records'
import { AccessRefused, WrongMethod } from './errors'

/** JSON in which bytes are decimal text. */
export const json = (value: unknown, status = 200, headers: Readonly<Record<string, string>> = {}) =>
  new Response(toJson(value), {
    status,
    headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store', ...headers },
  })

const statusByCode: Readonly<Record<string, number>> = {
  'review.share-changed': 409,
  'drafting.no-such-change': 404,
  'drafting.no-draft': 409,
  'drafting.plan-stale': 409,
  'drafting.other-plan': 409,
  'drafting.edited-elsewhere': 409,
  'drafting.not-now': 409,
  'drafting.claim-held': 409,
  'drafting.not-ready': 422,
  'looking.no-address': 422,
  'looking.not-accepted': 422,
  'change.intent-refused': 400,
  'change.unknown-kind': 400,
  'api.not-there': 404,
  'api.bad-request': 400,
  'api.body-too-large': 413,
  'api.wrong-method': 405,
}

/** What a fault becomes for whoever asked: a refusal that says why; a fault of ours is told by a number that stands in the log beside it. */
export function refused(cause: unknown): Response {
  if (isDatabaseAway(cause)) {
    return json(
      {
        code: 'records.away',
        what: 'The records cannot be reached.',
        why: 'The database does not answer.',
        remedy: 'Nothing is lost: what you typed stays here. It is tried again when you go on.',
      },
      503,
      { 'Retry-After': '3' },
    )
  }
  const refusal = refusalOf(cause)
  if (cause instanceof AccessRefused)
    return json(
      refusal,
      cause.status,
      cause.retrySeconds === undefined ? {} : { 'Retry-After': `${cause.retrySeconds}` },
    )
  if (cause instanceof WrongMethod) return json(refusal, 405, { Allow: cause.allowed.join(', ') })
  if (!(cause instanceof WendrelError)) {
    const reference = randomUUID().slice(0, 8)
    console.error(`fault ${reference}`, cause)
    return json({ ...refusal, remedy: `${refusal.remedy} Its number there is ${reference}.` }, 500)
  }
  return json(refusal, statusByCode[refusal.code] ?? (/^(redfish|connection|host)\./.test(refusal.code) ? 422 : 500))
}
