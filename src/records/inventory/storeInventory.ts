import type { KindName } from '@/core/estate'
import type { Inventory, InventoryParts } from '@/ports'
import type { Sequelize } from 'sequelize'
import { inTransaction, row, run, toJson, type Scope } from '../database'
import { hostGroupOf } from './hostGroupOf'
import { statedKinds, storeObjects, type NotKept, type Stated } from './storeObjects'

/** The number of a reading that begins now; of two readings the later one has the higher number, whoever makes them. */
export async function nextReading(scope: Scope): Promise<number> {
  return Number((await row<{ readonly number: string }>(scope, `select nextval('readings') as number`))?.number ?? 0)
}

/**
 * Takes over what a system says it has, in one transaction: new objects get ids, changed ones a new revision, and what the system does
 * not state any more is missing from now on. A reading that began before one that is kept already is passed over.
 *
 * @param number of the reading
 * @returns what could not be kept
 */
export async function storeInventory(
  database: Sequelize,
  systemId: string,
  found: Inventory,
  number: number,
): Promise<readonly NotKept[]> {
  return inTransaction(database, async scope => {
    const notKept: NotKept[] = []
    if (await isPassed(scope, systemId, number)) return notKept
    await storeSystem(scope, systemId, found, number)
    const groupOf = await hostGroupOf(scope)
    const mappings = found.mappings.map(each => ({ ...each, hostGroupId: groupOf(each.initiators, each.groupName) }))
    await storeObjects(scope, systemId, { ...kindsIn(found), mappings }, true, notKept)
    return notKept
  })
}

/** Takes over some objects that were read by themselves; nothing is missing because of what was not read. */
export async function storeParts(
  database: Sequelize,
  systemId: string,
  parts: InventoryParts,
  number: number,
): Promise<void> {
  await inTransaction(database, async scope => {
    if (!(await isPassed(scope, systemId, number))) await storeObjects(scope, systemId, kindsIn(parts), false, [])
  })
}

/** Whether a later reading is kept already. One reader of a system at a time: two that overlap would each miss what the other has just found. */
async function isPassed(scope: Required<Scope>, systemId: string, number: number): Promise<boolean> {
  const system = await row<{ readonly read_number: string }>(
    scope,
    'select read_number from systems where id = $1 for update',
    [systemId],
  )
  return system === undefined || Number(system.read_number) >= number
}

const storeSystem = (
  scope: Scope,
  systemId: string,
  { identity, sensors, clusterName, accessGroups }: Inventory,
  number: number,
) =>
  run(
    scope,
    `update systems set maker = $2, model = $3, serial = $4, firmware = $5, sensors = $6::jsonb, cluster_name = $7, read_number = $8, access_groups = $9::jsonb where id = $1`,
    [
      systemId,
      identity.maker,
      identity.model,
      identity.serial,
      identity.firmware,
      toJson(sensors),
      clusterName,
      number,
      toJson(accessGroups),
    ],
  )

/** What of a reading is objects: each kind stands under its own name. */
function kindsIn(found: Partial<Inventory>): Partial<Record<KindName, readonly Stated[]>> {
  const lists = found as Partial<Record<KindName, readonly Stated[]>>
  return Object.fromEntries(
    statedKinds.flatMap(({ name }) => (lists[name] === undefined ? [] : [[name, lists[name]] as const])),
  )
}
