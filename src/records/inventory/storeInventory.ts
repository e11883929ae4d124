import type { KindName } from '@/core/estate'
import type { Inventory, InventoryParts } from '@/ports'
import type { Sequelize } from 'sequelize'
import { createHash } from 'node:crypto'
import { inTransaction, row, run, toJson, type Scope } from '../database'
import { hostGroupOf } from './hostGroupOf'
import { statedKinds, storeObjects, type NotKept, type Stated } from './storeObjects'

const readingLock = 7_261_560

/** The number of a reading that begins now; of two readings the later one has the higher number, whoever makes them. */
export async function nextReading(scope: Scope): Promise<number> {
  return Number((await row<{ readonly number: string }>(scope, `select nextval('readings') as number`))?.number ?? 0)
}

/** What a reading has left in the records. */
export interface Kept {
  /** What could not be kept. */
  readonly notKept: readonly NotKept[]
  /** What the objects of the reading were, in a word; and at which reading the records stand because of it. */
  readonly digest: string
  readonly number: number
}

/**
 * Takes over what a system says it has, in one transaction: new objects get ids, changed ones a new revision, and what the system does
 * not state any more is missing from now on. A reading that began before one that is kept already is passed over. One that states
 * what the last one stated is not compared with the records at all, unless somebody else has changed them since.
 *
 * @param number of the reading
 * @param last what the last reading by the same reader has left
 */
export async function storeInventory(
  database: Sequelize,
  systemId: string,
  found: Inventory,
  number: number,
  last?: Kept,
): Promise<Kept> {
  return inTransaction(database, async scope => {
    const stands = await alone(scope, systemId)
    const groupOf = await hostGroupOf(scope)
    const mappings = found.mappings.map(each => ({ ...each, hostGroupId: groupOf(each.initiators, each.groupName) }))
    const stated = { ...kindsIn(found), mappings }
    const digest = digestOf(stated)
    if (stands === undefined || stands >= number) return { notKept: [], digest: '', number: 0 }
    await storeSystem(scope, systemId, found)
    if (last?.digest === digest && last.number === stands) return last
    const notKept: NotKept[] = []
    const written = await storeObjects(scope, systemId, stated, true, notKept)
    if (written > 0) await stand(scope, systemId, number)
    return { notKept, digest, number: written > 0 ? number : stands }
  })
}

/** SHA-256 over what a reading states of objects, one after another: the whole text never stands in memory. */
function digestOf(stated: Partial<Record<KindName, readonly Stated[]>>): string {
  const hash = createHash('sha256')
  for (const { name } of statedKinds) {
    hash.update(name)
    for (const object of stated[name] ?? []) {
      let text = ''
      for (const value of Object.values(object))
        text += `${typeof value === 'object' ? toJson(value) : String(value)}\0`
      hash.update(text)
    }
  }
  return hash.digest('base64')
}

/** Takes over some objects that were read by themselves; nothing is missing because of what was not read. */
export async function storeParts(
  database: Sequelize,
  systemId: string,
  parts: InventoryParts,
  number: number,
): Promise<void> {
  await inTransaction(database, async scope => {
    const stands = await alone(scope, systemId)
    if (stands === undefined || stands >= number) return
    if ((await storeObjects(scope, systemId, kindsIn(parts), false, [])) > 0) await stand(scope, systemId, number)
  })
}

/**
 * Lets one reader of a system at a time go on: two that overlap would each miss what the other has just found. By a lock that is no
 * row's, so that a reading which finds nothing new writes nothing. @returns the reading at which the records stand; undefined for a system that is gone
 */
export async function alone(scope: Required<Scope>, systemId: string): Promise<number | undefined> {
  await run(scope, 'select pg_advisory_xact_lock($1, hashtext($2))', [readingLock, systemId])
  const system = await row<{ readonly read_number: string }>(scope, 'select read_number from systems where id = $1', [
    systemId,
  ])
  return system === undefined ? undefined : Number(system.read_number)
}

/** Notes by which reading the records were changed last. */
export const stand = (scope: Required<Scope>, systemId: string, number: number) =>
  run(scope, 'update systems set read_number = $2 where id = $1', [systemId, number])

const storeSystem = (
  scope: Scope,
  systemId: string,
  { identity, sensors, clusterName, accessGroups, ungrouped, fileUnits, partners }: Inventory,
) =>
  run(
    scope,
    `update systems set maker = $2, model = $3, serial = $4, firmware = $5, sensors = $6::jsonb, cluster_name = $7, access_groups = $8::jsonb,
       file_units = $9::jsonb, ungrouped = $10::jsonb, partners = $11::jsonb
     where id = $1 and (maker, model, serial, firmware, sensors, cluster_name, access_groups, file_units, ungrouped, partners)
       is distinct from ($2::text, $3::text, $4::text, $5::text, $6::jsonb, $7::text, $8::jsonb, $9::jsonb, $10::jsonb, $11::jsonb)`,
    [
      systemId,
      identity.maker,
      identity.model,
      identity.serial,
      identity.firmware,
      toJson(sensors),
      clusterName,
      toJson(accessGroups),
      toJson(fileUnits),
      toJson(ungrouped),
      toJson(partners),
    ],
  )

/** What of a reading is objects: each kind stands under its own name. */
function kindsIn(found: Partial<Inventory>): Partial<Record<KindName, readonly Stated[]>> {
  const lists = found as Partial<Record<KindName, readonly Stated[]>>
  return Object.fromEntries(
    statedKinds.flatMap(({ name }) => (lists[name] === undefined ? [] : [[name, lists[name]] as const])),
  )
}
