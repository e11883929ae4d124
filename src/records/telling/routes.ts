import type { Route } from '@/core/estate'
import { row, type Scope } from '../database'
import { object } from '../objects'
import { openSecret } from '../secrets'

/** A route with its secret opened; undefined where it is gone. */
export async function routeById(
  scope: Scope,
  key: Buffer,
  id: string,
): Promise<{ readonly route: Route; readonly secret: string | undefined } | undefined> {
  const route = await object(scope, 'routes', id)
  if (route === undefined) return undefined
  const kept = await row<{ readonly secret_id: string | null }>(scope, 'select secret_id from routes where id = $1', [
    id,
  ])
  const secret = kept?.secret_id == null ? undefined : await openSecret(scope, key, kept.secret_id, 'route')
  return { route, secret }
}
