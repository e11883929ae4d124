import type { KindName } from '@/core/estate'
import { inTransaction, rows, run, type Scope } from '../database'
import { tableOf } from '../objects'
import { statedKinds } from './storeObjects'

/** Kinds whose objects can be missing, those first that others hang on. */
const missable = [...statedKinds].reverse()

/** What is missing of a system: how many of each, and since when the first. */
export const missingOf = (scope: Scope, systemId: string) =>
  rows<{ readonly kind: KindName; readonly count: number; readonly since: Date; readonly names: string[] }>(
    scope,
    missable
      .filter(({ schema }) => 'name' in schema.properties)
      .map(
        ({ name }) =>
          `select '${name}' as kind, count(*)::int as count, min(missing_since) as since, (array_agg(name order by name))[1:5] as names
           from ${tableOf(name)} where system_id = $1 and missing_since is not null having count(*) > 0`,
      )
      .join(' union all '),
    [systemId],
  )

/**
 * Takes out of the records what was removed from a system by a change of ours. Only what the system no longer states: what stands
 * there again, or still, is left as it is.
 */
export async function gone({ database }: Scope, systemId: string, locators: readonly string[]): Promise<void> {
  await inTransaction(database, async scope => {
    for (const { name } of missable)
      await run(
        scope,
        `delete from ${tableOf(name)} where system_id = $1 and locator = any($2) and missing_since is not null`,
        [systemId, locators],
      )
  })
}

/** Takes all that is missing of a system out of the records. @returns how many objects */
export async function forgetMissing({ database }: Scope, systemId: string): Promise<number> {
  return inTransaction(database, async scope => {
    let forgotten = 0
    for (const { name } of missable) {
      const found = await rows<{ readonly id: string }>(
        scope,
        `delete from ${tableOf(name)} where system_id = $1 and missing_since is not null returning id`,
        [systemId],
      )
      forgotten += found.length
    }
    return forgotten
  })
}
