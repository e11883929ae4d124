import { inTransaction, rows, run, type Scope } from '../database'

/** Tables whose objects can be missing, those first that others hang on. */
const missable = [
  'mappings',
  'volumes',
  'drives',
  'pools',
  'ports',
  'controllers',
  'node_ports',
  'switch_ports',
  'nodes',
  'switches',
  'enclosures',
] as const

/** What is missing of a system: how many of each, and since when the first. */
export const missingOf = (scope: Scope, systemId: string) =>
  rows<{ readonly kind: string; readonly count: number; readonly since: Date; readonly names: string[] }>(
    scope,
    missable
      .filter(table => table !== 'mappings')
      .map(
        table =>
          `select '${table}' as kind, count(*)::int as count, min(missing_since) as since, (array_agg(name order by name))[1:5] as names
           from ${table} where system_id = $1 and missing_since is not null having count(*) > 0`,
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
    for (const table of missable)
      await run(
        scope,
        `delete from ${table} where system_id = $1 and locator = any($2) and missing_since is not null`,
        [systemId, locators],
      )
  })
}

/** Takes all that is missing of a system out of the records. @returns how many objects */
export async function forgetMissing({ database }: Scope, systemId: string): Promise<number> {
  return inTransaction(database, async scope => {
    let forgotten = 0
    for (const table of missable) {
      const found = await rows<{ readonly id: string }>(
        scope,
        `delete from ${table} where system_id = $1 and missing_since is not null returning id`,
        [systemId],
      )
      forgotten += found.length
    }
    return forgotten
  })
}
