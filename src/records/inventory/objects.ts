import { row, run, type Scope } from '../database'
import { tableOf } from '../objects'
import { statedKinds } from './storeObjects'

/** The id of what stands at a place of a system. */
export async function idAt(scope: Scope, systemId: string, locator: string): Promise<string | undefined> {
  const sql = statedKinds
    .map(
      ({ name }) => `select id from ${tableOf(name)} where system_id = $1 and locator = $2 and missing_since is null`,
    )
    .join(' union all ')
  return (await row<{ readonly id: string }>(scope, sql, [systemId, locator]))?.id
}

export const hold = (scope: Scope, volumeId: string, until: Date) =>
  run(scope, `update volumes set state = 'holding', holding_until = $2 where id = $1`, [volumeId, until.toISOString()])

export const release = (scope: Scope, volumeId: string) =>
  run(scope, `update volumes set state = 'in use', holding_until = null where id = $1`, [volumeId])
