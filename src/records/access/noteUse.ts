import { run, type Scope } from '../database'

/** Whether something by which people come in was last used a while ago, or never. */
export const isStale = `coalesce(used_at < now() - interval '1 minute', true)`

/**
 * Notes that a session or token has been used, at most once a minute. Of many who come by it at one moment one writes; the others do not
 * wait for that, each with a connection of the pool: two hundred pages come back at once where the server was away.
 */
export const noteUse = (scope: Scope, table: 'sessions' | 'api_tokens', id: string): Promise<unknown> =>
  run(
    scope,
    `update ${table} set used_at = now() where id = (select id from ${table} where id = $1 and ${isStale} for update skip locked)`,
    [id],
  )
