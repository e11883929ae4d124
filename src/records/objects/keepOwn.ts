import { fieldsOf, kindOf, type KindName, type ObjectTypes } from '@/core/estate'
import { v7 as uuid } from 'uuid'
import { row, run, toJson, type Scope } from '../database'
import { inside } from '../model'
import { columnOf, columnTypes, modelOf, tableOf } from './kindModel'

/** Kinds that only Wendrel keeps: each row tells by which step it was made, so that a step makes one only, however often it runs. */
export type OwnKind = 'routes' | 'rules' | 'directories'
export type Own<Name extends KindName> = Omit<ObjectTypes[Name], 'id' | 'revision'>

/**
 * Keeps an object of ours as it is given. What is left out stays as it is.
 * @param id of the one that is altered; null for a new one. @param key of the step that makes a new one
 * @param secretId of a secret that is kept with it; null where none is given anew, when the one before stays
 * @returns its id
 */
export async function keepOwn<Name extends OwnKind>(
  scope: Scope,
  name: Name,
  kept: Partial<Own<Name>>,
  id: string | null,
  key: string,
  secretId: string | null = null,
): Promise<string> {
  const table = tableOf(name)
  if (id !== null) {
    await modelOf(scope.database, name).update(kept, { where: { id }, ...inside(scope) })
    if (secretId !== null) await giveSecret(scope, table, id, secretId)
    return id
  }
  const fields = fieldsOf(kindOf(name)).filter(({ field }) => field in kept)
  const values = [
    ...fields.map(({ field, type }) => {
      const value = (kept as Readonly<Record<string, unknown>>)[field]
      return type === 'json' ? toJson(value) : value
    }),
    ...(secretId === null ? [] : [secretId]),
  ]
  const columns = [...fields.map(({ field }) => columnOf(field)), ...(secretId === null ? [] : ['secret_id'])]
  const types = [...fields.map(({ type }) => columnTypes[type]), 'uuid']
  await run(
    scope,
    `insert into ${table} (id, made_by_step, ${columns.join(', ')})
     values ($1, $2, ${columns.map((_, index) => `$${index + 3}::${types[index] ?? 'text'}`).join(', ')})
     on conflict (made_by_step) do nothing`,
    [uuid(), key, ...values],
  )
  const made = await row<{ readonly id: string }>(scope, `select id from ${table} where made_by_step = $1`, [key])
  return made?.id ?? ''
}

/** Gives an object another secret; the one before is of no use any more. */
async function giveSecret(scope: Scope, table: string, id: string, secretId: string): Promise<void> {
  const before = await row<{ readonly secret_id: string | null }>(
    scope,
    `select secret_id from ${table} where id = $1`,
    [id],
  )
  await run(scope, `update ${table} set secret_id = $2 where id = $1`, [id, secretId])
  if (before?.secret_id != null && before.secret_id !== secretId)
    await run(scope, 'delete from kept_secrets where id = $1', [before.secret_id])
}

/** Takes an object of ours away, and a route also from the rules that tell there. One that is gone already is taken away. */
export async function dropOwn(scope: Scope, name: OwnKind, id: string): Promise<void> {
  if (name === 'routes')
    await run(scope, 'update rules set route_ids = route_ids - $1::text where route_ids ? $1::text', [id])
  // What was kept for it alone goes with it.
  if (name !== 'rules')
    await run(scope, `delete from kept_secrets where id = (select secret_id from ${tableOf(name)} where id = $1)`, [id])
  await modelOf(scope.database, name).destroy({ where: { id }, ...inside(scope) })
}
