import type { KindName } from '@/core/estate'
import { inTransaction, row, run, type Scope } from '../database'
import { columnOf, tableOf } from '../objects'
import { alone, nextReading, stand } from './storeInventory'
import { statedKinds } from './storeObjects'

/** What names a volume: the table and the column. */
const namingVolumes = statedKinds.flatMap(({ name, references }) =>
  Object.entries(references as Partial<Record<string, KindName>>).flatMap(([field, to]) =>
    to === 'volumes' ? [[tableOf(name), columnOf(field)] as const] : [],
  ),
)

/**
 * Lets a volume stand on another system: the object that a reading has found there under the same WWN becomes the one that was known
 * before, with all that is ours of it. What on its old system names it is read anew with that. Readings that began before are passed over. @returns false while nothing of its WWN is known to stand there
 */
export async function movedTo(
  { database }: Scope,
  volumeId: string,
  systemId: string,
  locator: string,
): Promise<boolean> {
  return inTransaction(database, async scope => {
    const before = await row<{ readonly system_id: string; readonly locator: string; readonly naa: string }>(
      scope,
      'select system_id, locator, naa from volumes where id = $1',
      [volumeId],
    )
    if (before === undefined) return false
    if (before.system_id === systemId && before.locator === locator) return true
    for (const each of [before.system_id, systemId].sort()) await alone(scope, each)
    const there = await row<{ readonly id: string; readonly pool_id: string }>(
      scope,
      'select id, pool_id from volumes where system_id = $1 and locator = $2 and naa = $3 and missing_since is null',
      [systemId, locator, before.naa],
    )
    if (there === undefined) return false
    for (const [table, column] of namingVolumes)
      await run(scope, `update ${table} set ${column} = $1 where ${column} = $2`, [volumeId, there.id])
    await run(scope, 'delete from volumes where id = $1', [there.id])
    await run(
      scope,
      'update volumes set system_id = $2, locator = $3, pool_id = $4, missing_since = null where id = $1',
      [volumeId, systemId, locator, there.pool_id],
    )
    for (const each of [before.system_id, systemId]) await stand(scope, each, await nextReading(scope))
    return true
  })
}
