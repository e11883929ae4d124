import { v7 as uuid } from 'uuid'
import { row, run, type Scope } from '../database'

const idleHours = 12
const throttleMinutes = 15

export async function openSession(scope: Scope, administratorId: string): Promise<string> {
  const id = uuid()
  await run(scope, 'insert into sessions (id, administrator_id) values ($1, $2)', [id, administratorId])
  return id
}

export const closeSession = (scope: Scope, id: string) => run(scope, 'delete from sessions where id = $1', [id])

/** Who a session belongs to; undefined where it has ended. Its last use is noted at most once a minute. */
export async function administratorOf(
  scope: Scope,
  sessionId: string,
): Promise<{ readonly id: string; readonly name: string } | undefined> {
  const found = await row<{ readonly id: string; readonly name: string; readonly is_stale: boolean }>(
    scope,
    `select administrators.id, administrators.name, used_at < now() - interval '1 minute' as is_stale from sessions join administrators on administrators.id = administrator_id
     where sessions.id = $1 and used_at > now() - make_interval(hours => $2)`,
    [sessionId, idleHours],
  )
  if (found === undefined) return undefined
  if (found.is_stale) await run(scope, 'update sessions set used_at = now() where id = $1', [sessionId])
  return { id: found.id, name: found.name }
}

export const noteAttempt = (scope: Scope, name: string, address: string, succeeded: boolean) =>
  run(scope, 'insert into sign_in_attempts (name, address, succeeded) values ($1, $2, $3)', [name, address, succeeded])

/** Failed attempts since the last success for a name (count) within a quarter of an hour, and seconds since the last of them. */
export async function recentFailures(
  scope: Scope,
  name: string,
): Promise<{ readonly count: number; readonly secondsAgo: number }> {
  const found = await row<{ readonly count: number; readonly seconds_ago: number | null }>(
    scope,
    `select count(*)::int as count, extract(epoch from now() - max(at))::float8 as seconds_ago from sign_in_attempts
     where name = $1 and not succeeded and at > now() - make_interval(mins => $2)
       and at > coalesce((select max(at) from sign_in_attempts where name = $1 and succeeded), '-infinity')`,
    [name, throttleMinutes],
  )
  return { count: found?.count ?? 0, secondsAgo: found?.seconds_ago ?? Infinity }
}
