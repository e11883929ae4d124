import { LRUCache } from 'lru-cache'
import type { Sequelize } from 'sequelize'
import { rows, type Scope } from '../database'

/** What stands in a table, and how it is read once one of its rows is another. */
export interface Reading<Found extends object = object> {
  readonly table: string
  /** Only rows of one system. */
  readonly systemId?: string
  /** Only rows that systems still state. */
  readonly isLocated: boolean
  readonly read: () => Promise<readonly Found[]>
}

interface Known {
  readonly mark: string
  readonly found: readonly object[]
}
/** Of all tables that plans look at, for some systems that somebody drafts on. */
const mostKept = 80
/** While somebody drafts; at rest nothing is held. */
const keptMilliseconds = 20_000
const keptBy = new WeakMap<Sequelize, LRUCache<string, Known>>()

const keyOf = ({ table, systemId = '' }: Reading) => `${table} ${systemId}`

/** What no two states of the rows have alike: where each version of each row stands, and who wrote it. Source: PostgreSQL, system columns. */
async function marksOf(scope: Scope, readings: readonly Reading[]): Promise<ReadonlyMap<string, string>> {
  const systems = [...new Set(readings.flatMap(({ systemId }) => (systemId === undefined ? [] : [systemId])))]
  const parts = readings.map((reading, index) => {
    const { table, systemId, isLocated } = reading
    const only = [
      ...(isLocated ? ['missing_since is null'] : []),
      ...(systemId === undefined ? [] : [`system_id = $${systems.indexOf(systemId) + 1}::uuid`]),
    ]
    return `select ${index} as at, count(*) || ' ' || coalesce(sum(hashtidextended(ctid, xmin::text::bigint)), 0) as mark
      from ${table}${only.length === 0 ? '' : ` where ${only.join(' and ')}`}`
  })
  const found = await rows<{ readonly at: number; readonly mark: string }>(scope, parts.join(' union all '), systems)
  return new Map(found.map(({ at, mark }) => [keyOf(readings[at] as Reading), mark]))
}

/**
 * What several tables hold. A draft is planned anew with every key that is pressed, mostly on the same thousands of drives: reading them
 * takes many times as long as seeing that none of their rows is another one, and one question asks that of all of them.
 * @returns what was found, in the order of `readings`
 */
export async function unchanged(scope: Scope, readings: readonly Reading[]): Promise<readonly (readonly object[])[]> {
  if (readings.length === 0) return []
  const kept =
    keptBy.get(scope.database) ??
    new LRUCache<string, Known>({ max: mostKept, ttl: keptMilliseconds, ttlAutopurge: true })
  keptBy.set(scope.database, kept)
  const marks = await marksOf(scope, readings)
  const isKnown = (reading: Reading) => {
    const known = kept.get(keyOf(reading))
    return known !== undefined && known.mark === marks.get(keyOf(reading)) ? known : undefined
  }
  const found = new Map<Reading, readonly object[]>()
  // One after another: in a transaction all go over one connection, which answers one question at a time.
  for (const reading of readings) found.set(reading, isKnown(reading)?.found ?? (await reading.read()))
  const others = readings.filter(reading => isKnown(reading) === undefined)
  // What changed between the two questions is seen at the next one: its rows are others then.
  const after = others.length === 0 ? marks : await marksOf(scope, others)
  for (const reading of others) {
    const mark = marks.get(keyOf(reading))
    if (mark !== undefined && after.get(keyOf(reading)) === mark)
      kept.set(keyOf(reading), { mark, found: found.get(reading) ?? [] })
  }
  return readings.map(reading => found.get(reading) ?? [])
}
