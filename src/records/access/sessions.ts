import { v7 as uuid } from 'uuid'
import { row, run, type Scope } from '../database'

const idleHours = 12
/** However busily it is used, a session ends after this. */
const longestHours = 7 * 24

/** Opens a session in place of the one that the browser had. @returns its id */
export async function openSession(
  scope: Scope,
  administratorId: string,
  inPlaceOf: string | undefined,
): Promise<string> {
  const id = uuid()
  if (inPlaceOf !== undefined) await closeSession(scope, inPlaceOf)
  await run(scope, 'delete from sessions where ends_at < now() or used_at < now() - make_interval(hours => $1)', [
    idleHours,
  ])
  await run(
    scope,
    'insert into sessions (id, administrator_id, ends_at) values ($1, $2, now() + make_interval(hours => $3))',
    [id, administratorId, longestHours],
  )
  return id
}

export const closeSession = (scope: Scope, id: string) => run(scope, 'delete from sessions where id = $1', [id])

/** Ends every session of an administrator but one, as after a change of password. */
export const closeOtherSessions = (scope: Scope, administratorId: string, kept: string) =>
  run(scope, 'delete from sessions where administrator_id = $1 and id <> $2', [administratorId, kept])

interface Holder {
  readonly id: string
  readonly name: string
}

/** Who a session belongs to; undefined where it has ended. Its last use is noted at most once a minute. */
export async function administratorOf(scope: Scope, sessionId: string): Promise<Holder | undefined> {
  const found = await row<Holder & { readonly is_stale: boolean }>(
    scope,
    `select administrators.id, administrators.name, used_at < now() - interval '1 minute' as is_stale from sessions join administrators on administrators.id = administrator_id
     where sessions.id = $1 and used_at > now() - make_interval(hours => $2) and ends_at > now()`,
    [sessionId, idleHours],
  )
  if (found === undefined) return undefined
  if (found.is_stale) await run(scope, 'update sessions set used_at = now() where id = $1', [sessionId])
  return { id: found.id, name: found.name }
}

/** Whether a session still holds; asking is no use of it, so that an open page does not keep it alive. */
export async function isSessionOpen(scope: Scope, sessionId: string): Promise<boolean> {
  const found = await row(
    scope,
    'select id from sessions where id = $1 and used_at > now() - make_interval(hours => $2) and ends_at > now()',
    [sessionId, idleHours],
  )
  return found !== undefined
}
