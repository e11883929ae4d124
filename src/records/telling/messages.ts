import type { Message } from '@/core/telling'
import type { ToldMessage } from '@/core/views'
import { v7 as uuid } from 'uuid'
import { rows, run, toJson, type Scope } from '../database'

/** A message that is to leave now. */
export interface DueMessage {
  readonly id: string
  readonly routeId: string
  readonly message: Message
  readonly tries: number
}

/** Messages stay on record for so long. */
const keptDays = 90

/** Puts a message on its way. @param id the same for the same message: it is put there once only */
export async function queueMessage(
  scope: Scope,
  message: Message,
  { ruleId, routeId, id = uuid() }: { readonly ruleId: string | null; readonly routeId: string; readonly id?: string },
): Promise<void> {
  await run(
    scope,
    `insert into told_messages (id, rule_id, route_id, message, next_at)
     select $1, $2, id, $4::jsonb, now() from routes where id = $3 on conflict (id) do nothing`,
    [id, ruleId, routeId, toJson(message)],
  )
}

/** Messages whose time has come, the oldest first. */
export async function dueMessages(scope: Scope, limit: number): Promise<DueMessage[]> {
  return rows<DueMessage>(
    scope,
    `select id, route_id as "routeId", message, tries from told_messages where next_at <= now() order by next_at, id limit $1`,
    [limit],
  )
}

export const noteSent = (scope: Scope, id: string, delivered: { readonly sent: string; readonly answer: string }) =>
  run(
    scope,
    `update told_messages set next_at = null, sent_at = now(), tries = tries + 1, sent = $2, answer = $3, failed_why = null where id = $1`,
    [id, delivered.sent, delivered.answer],
  )

/** @param againSeconds after which it is sent again; null where it is given up */
export const noteFailed = (scope: Scope, id: string, why: string, againSeconds: number | null) =>
  run(
    scope,
    `update told_messages set tries = tries + 1, failed_why = $2, next_at = now() + make_interval(secs => $3::float8) where id = $1`,
    [id, why, againSeconds],
  )

const mostShown = 200

/** What was told of late, the latest first; what is older than is kept goes. */
export async function latestMessages(scope: Scope, limit = mostShown): Promise<ToldMessage[]> {
  const found = await rows<
    Omit<ToldMessage, 'madeAt' | 'sentAt' | 'nextAt'> & {
      readonly made_at: Date
      readonly sent_at: Date | null
      readonly next_at: Date | null
    }
  >(
    scope,
    `select told_messages.id, message, route_id as "routeId", routes.name as "routeName", made_at, sent_at, tries, next_at, sent, answer,
       failed_why as "failedWhy"
     from told_messages left join routes on routes.id = route_id
     where made_at > now() - interval '${keptDays} days' order by made_at desc, told_messages.id desc limit $1`,
    [limit],
  )
  return found.map(({ made_at, sent_at, next_at, ...rest }) => ({
    ...rest,
    madeAt: made_at.toISOString(),
    sentAt: sent_at?.toISOString() ?? null,
    nextAt: next_at?.toISOString() ?? null,
  }))
}

/** Takes messages that are older than is kept from the records. */
export const dropOldMessages = (scope: Scope) =>
  run(scope, `delete from told_messages where made_at < now() - interval '${keptDays} days'`)
