import type { Route, Rule } from '@/core/estate'
import { v7 as uuid } from 'uuid'
import { row, run, toJson, type Scope } from '../database'
import { inside } from '../model'
import { modelOf, object } from '../objects'
import { openSecret } from '../secrets'

export type KeptRoute = Omit<Route, 'id' | 'revision'> & { readonly secretId: string | null }

/** Keeps a route as it is given. @param key of the step that makes a new one: it makes one only, however often it runs. @returns its id */
export async function keepRoute(scope: Scope, kept: KeptRoute, id: string | null, key: string): Promise<string> {
  const { secretId, ...route } = kept
  if (id !== null) {
    await modelOf(scope.database, 'routes').update(route, { where: { id }, ...inside(scope) })
    // A secret that is not given anew stays.
    if (secretId !== null) await run(scope, 'update routes set secret_id = $2 where id = $1', [id, secretId])
    return id
  }
  const { name, way, address, sender, recipients, userName } = route
  await run(
    scope,
    `insert into routes (id, name, way, address, sender, recipients, user_name, secret_id, made_by_step)
     values ($1, $2, $3, $4, $5, $6::jsonb, $7, $8, $9) on conflict (made_by_step) do nothing`,
    [uuid(), name, way, address, sender, toJson(recipients), userName, secretId, key],
  )
  return (await row<{ readonly id: string }>(scope, 'select id from routes where made_by_step = $1', [key]))?.id ?? ''
}

/** Takes a route away, also from the rules that tell there. */
export async function dropRoute(scope: Scope, id: string): Promise<void> {
  await run(scope, 'update rules set route_ids = route_ids - $1::text where route_ids ? $1::text', [id])
  await run(scope, 'delete from routes where id = $1', [id])
}

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

/** Keeps a rule as it is given. @param key of the step that makes a new one. @returns its id */
export async function keepRule(
  scope: Scope,
  kept: Omit<Rule, 'id' | 'revision'>,
  id: string | null,
  key: string,
): Promise<string> {
  if (id !== null) {
    await modelOf(scope.database, 'rules').update(kept, { where: { id }, ...inside(scope) })
    return id
  }
  await run(
    scope,
    `insert into rules (id, name, subject, gravity, begins_at, ends_at, minutes, quiet_from, quiet_to, quiet_days, time_zone,
       is_urgent_always, round_at, route_ids, made_by_step)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14::jsonb, $15) on conflict (made_by_step) do nothing`,
    [
      uuid(),
      kept.name,
      kept.subject,
      kept.gravity,
      kept.beginsAt,
      kept.endsAt,
      kept.minutes,
      kept.quietFrom,
      kept.quietTo,
      kept.quietDays,
      kept.timeZone,
      kept.isUrgentAlways,
      kept.roundAt,
      toJson(kept.routeIds),
      key,
    ],
  )
  return (await row<{ readonly id: string }>(scope, 'select id from rules where made_by_step = $1', [key]))?.id ?? ''
}

export const dropRule = (scope: Scope, id: string): Promise<void> => run(scope, 'delete from rules where id = $1', [id])
