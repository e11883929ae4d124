import type { KindName, ObjectTypes } from '@/core/estate'
import { LRUCache } from 'lru-cache'
import type { Sequelize } from 'sequelize'
import { row, type Scope } from '../database'
import { objects, tableOf } from '../objects'

interface Known {
  readonly mark: string
  readonly found: readonly object[]
}
const mostKept = 4
/** While somebody drafts; at rest nothing is held. */
const keptMilliseconds = 20_000
const keptBy = new WeakMap<Sequelize, LRUCache<string, Known>>()

/** What no two states of the rows have alike: each row's own version. Source: PostgreSQL, system columns. */
const markOf = async (scope: Scope, name: KindName, systemId: string): Promise<string> =>
  (
    await row<{ readonly mark: string }>(
      scope,
      `select count(*) || ' ' || coalesce(sum(hashtextextended(id::text || ctid::text || xmin::text, 0)), 0) as mark
       from ${tableOf(name)} where system_id = $1 and missing_since is null`,
      [systemId],
    )
  )?.mark ?? ''

/**
 * Objects of a kind that a system has. A draft is planned anew with every key that is pressed, mostly on the same thousands of drives:
 * reading them takes many times as long as seeing that none of their rows is another one.
 */
export async function unchanged<Name extends KindName>(
  scope: Scope,
  name: Name,
  systemId: string,
): Promise<ObjectTypes[Name][]> {
  const kept =
    keptBy.get(scope.database) ??
    new LRUCache<string, Known>({ max: mostKept, ttl: keptMilliseconds, ttlAutopurge: true })
  keptBy.set(scope.database, kept)
  const key = `${name} ${systemId}`
  const mark = await markOf(scope, name, systemId)
  const known = kept.get(key)
  if (known?.mark === mark) return [...known.found] as ObjectTypes[Name][]
  const found = await objects(scope, name, { and: { systemId } })
  // What changed between the two questions is seen at the next one: its rows are others then.
  if ((await markOf(scope, name, systemId)) === mark) kept.set(key, { mark, found })
  return [...found]
}
