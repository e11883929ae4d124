import { kindOf, type KindName } from '@/core/estate'
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

/** What a reader's readings have left in the records. */
export interface Kept {
  /** What could not be kept. */
  readonly notKept: readonly NotKept[]
  /** What was stated of each kind last; a kind is not among them that has been written otherwise since. */
  readonly kinds: ReadonlyMap<KindName, Digests>
  /** At which reading the records stand because of it. */
  readonly number: number
}

/** What was stated of the objects of a kind, in two words: all of it, and only by what they are known. */
interface Digests {
  readonly whole: string
  readonly known: string
}

const nothing: Kept = { notKept: [], kinds: new Map(), number: 0 }

/**
 * Takes over what a system says it has, in one transaction: new objects get ids, changed ones a new revision, and what the system does
 * not state any more is missing from now on. A reading that began before one that is kept already is passed over. Kinds of which it
 * states what the last one stated are not compared with the records at all, unless somebody else has changed them since.
 *
 * @param number of the reading
 * @param last what the last reading by the same reader has left
 * @param isFirm what began before this one is passed over from now on, even if this one finds nothing new: of two readings that overlap
 *   the one that began later may have looked at a thing earlier
 */
export async function storeInventory(
  database: Sequelize,
  systemId: string,
  found: Inventory,
  number: number,
  last?: Kept,
  isFirm = false,
): Promise<Kept> {
  return inTransaction(database, async scope => {
    const stands = await alone(scope, systemId)
    const groupOf = await hostGroupOf(scope)
    const mappings = found.mappings.map(each => ({ ...each, hostGroupId: groupOf(each.initiators, each.groupName) }))
    const stated = { ...kindsIn(found), mappings }
    if (stands === undefined || stands >= number) return last ?? nothing
    const kinds = digestsOf(stated)
    await storeSystem(scope, systemId, found)
    const names = Object.keys(stated) as KindName[]
    const before = last?.number === stands ? last.kinds : nothing.kinds
    const changed = names.filter(name => isChanged(name, before, kinds))
    if (last !== undefined && changed.length === 0) {
      if (!isFirm) return last
      await stand(scope, systemId, number)
      return { ...last, number }
    }
    const notKept: NotKept[] = []
    // What could not be kept is not there for others either, whatever they state themselves: then all are looked at.
    let isAll = changed.length === names.length || (last?.notKept.length ?? 0) > 0
    let written = isAll ? 0 : await storeObjects(scope, systemId, some(stated, changed), true, notKept)
    isAll ||= notKept.length > 0
    if (isAll) {
      notKept.length = 0
      written += await storeObjects(scope, systemId, stated, true, notKept)
    }
    const isNoted = isFirm || written > 0
    if (isNoted) await stand(scope, systemId, number)
    return { notKept, kinds, number: isNoted ? number : stands }
  })
}

type StatedKinds = Partial<Record<KindName, readonly Stated[]>>

const some = (stated: StatedKinds, names: readonly KindName[]): StatedKinds =>
  Object.fromEntries(names.map(name => [name, stated[name]]))

/** Whether something else is stated of a kind than before, or what its objects name may be known by other ids. */
function isChanged(name: KindName, before: Kept['kinds'], now: Kept['kinds']): boolean {
  const { references } = kindOf(name)
  return (
    before.get(name)?.whole !== now.get(name)?.whole ||
    Object.values(references).some(each => before.get(each)?.known !== now.get(each)?.known)
  )
}

/** So much text is hashed in one go: object by object the calls would cost more than the hashing. */
const hashedCharacters = 65_536

/** SHA-256 over what a reading states of objects, one after another: the whole text never stands in memory. */
function digestsOf(stated: StatedKinds): Kept['kinds'] {
  return new Map(
    statedKinds.map(({ name, durableName }) => {
      const [whole, known] = [inOneGo(), inOneGo()]
      for (const object of stated[name] ?? []) {
        for (const value of Object.values(object))
          whole.add(`${typeof value === 'object' ? toJson(value) : String(value)}\0`)
        known.add(`${object.locator}\0${durableName === undefined ? '' : String(object[durableName as 'locator'])}\0`)
      }
      return [name, { whole: whole.digest(), known: known.digest() }]
    }),
  )
}

/** A hash that texts are added to. */
function inOneGo() {
  const hash = createHash('sha256')
  let text = ''
  return {
    add(more: string) {
      text += more
      if (text.length < hashedCharacters) return
      hash.update(text)
      text = ''
    },
    digest: () => hash.update(text).digest('base64'),
  }
}

/**
 * Takes over some objects that were read by themselves; nothing is missing because of what was not read.
 * @param last what the last reading by the same reader has left @returns what this one leaves
 */
export async function storeParts(
  database: Sequelize,
  systemId: string,
  parts: InventoryParts,
  number: number,
  last?: Kept,
): Promise<Kept> {
  return inTransaction(database, async scope => {
    const stands = await alone(scope, systemId)
    if (stands === undefined || stands >= number) return last ?? nothing
    const stated = kindsIn(parts)
    const written = await storeObjects(scope, systemId, stated, false, [])
    if (written === 0) return last ?? nothing
    await stand(scope, systemId, number)
    if (last?.number !== stands) return nothing
    return { ...last, kinds: new Map([...last.kinds].filter(([name]) => stated[name] === undefined)), number }
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
function kindsIn(found: Partial<Inventory>): StatedKinds {
  const lists = found as Partial<Record<KindName, readonly Stated[]>>
  return Object.fromEntries(
    statedKinds.flatMap(({ name }) => (lists[name] === undefined ? [] : [[name, lists[name]] as const])),
  )
}
