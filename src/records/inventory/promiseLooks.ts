import type { Sequelize } from 'sequelize'
import type { ClassKept } from '@/core/views'
import { inTransaction, rows, run, toJson, type Scope } from '../database'

/** Keeps how the promises of all classes were kept when they were looked at, in the place of the look before. @param at of the estate */
export const keepPromiseLooks = (database: Sequelize, looks: readonly ClassKept[], at: Date): Promise<void> =>
  inTransaction(database, async scope => {
    const kept = looks.filter(({ volumes }) => volumes > 0)
    await run(scope, `delete from promise_looks where class_id <> all ($1::uuid[])`, [kept.map(({ id }) => id)])
    await run(
      scope,
      `insert into promise_looks (class_id, looked_at, volumes, promises)
       select id, $2, volumes, promises from jsonb_to_recordset($1::jsonb) as looks(id uuid, volumes int, promises jsonb)
       where exists (select from service_classes where service_classes.id = looks.id)
       on conflict (class_id) do update set looked_at = excluded.looked_at, volumes = excluded.volumes, promises = excluded.promises`,
      [toJson(kept), at.toISOString()],
    )
  })

/** How they were kept then, by the names of classes; with the least of the moments. Undefined where no volume stands under a class. */
export async function latestPromises(
  scope: Scope,
): Promise<{ readonly classes: readonly ClassKept[]; readonly lookedAt: string } | undefined> {
  const found = await rows<ClassKept & { readonly lookedAt: Date }>(
    scope,
    `select id, name, volumes, promises, looked_at as "lookedAt" from promise_looks join service_classes on id = class_id order by name`,
  )
  const [first] = found
  if (first === undefined) return undefined
  const lookedAt = found.reduce((least, each) => (each.lookedAt < least ? each.lookedAt : least), first.lookedAt)
  return { classes: found.map(({ lookedAt: _, ...each }) => each), lookedAt: lookedAt.toISOString() }
}
