import { fieldsOf, isLocated, kindList, kindOf, type KindName, type ObjectKind } from '@/core/estate'
import { v7 as uuid } from 'uuid'
import { rows, run, toJson, type Scope } from '../database'
import { columnOf, columnTypes, tableOf } from '../objects'

/** What of a reading could not be kept, and why. */
export interface NotKept {
  readonly locator: string
  readonly why: string
}

/** An object as a system states it; it names others by their locators. */
export interface Stated {
  readonly locator: string
}
type Fields = Readonly<Record<string, unknown>>

/** The kinds that systems state, those first to which others refer. */
export const statedKinds: readonly ObjectKind[] = kindList.filter(isLocated)

/**
 * Takes over objects of some kinds that a system states: each is given the id by which it is known, what it names is found, and rows that
 * are as they were are not written at all.
 * @param isAll whether all of these kinds were read, so that what is not among them is missing from now on
 * @returns how many rows were written
 */
export async function storeObjects(
  scope: Required<Scope>,
  systemId: string,
  stated: { readonly [Name in KindName]?: readonly Stated[] },
  isAll: boolean,
  notKept: NotKept[],
): Promise<number> {
  const kinds = statedKinds.filter(kind => stated[kind.name] !== undefined)
  const { known, found, ids } = await recogniseAll(scope, kinds, systemId, stated, notKept)
  let written = 0
  for (const kind of kinds) {
    const kept = new Set<string>()
    const objects = found.get(kind.name) ?? []
    for (let from = 0; from < objects.length; from += rowsAtOnce) {
      const some = objects.slice(from, from + rowsAtOnce).flatMap(object => {
        const whole = withReferences(kind, object, ids)
        if ('lacks' in whole) return left(kind, object, whole.lacks)
        kept.add(object.id)
        return [whole.object]
      })
      written += await write(scope, kind, systemId, some)
    }
    if (isAll) written += await miss(scope, kind, known.get(kind.name) ?? [], kept)
  }
  return written

  /** What was not kept is not there for others either. */
  function left(kind: ObjectKind, { locator }: Stated, lacks: KindName): [] {
    ids.get(kind.name)?.delete(locator)
    notKept.push({ locator, why: `It names no ${kindOf(lacks).words.one} that the system has.` })
    return []
  }
}

/** All ids before anything is written: ports lead to each other in rings. */
async function recogniseAll(
  scope: Required<Scope>,
  kinds: readonly ObjectKind[],
  systemId: string,
  stated: { readonly [Name in KindName]?: readonly Stated[] },
  notKept: NotKept[],
) {
  const ids = new Map<KindName, Map<string, string>>()
  const known = new Map<KindName, readonly Known[]>()
  const found = new Map<KindName, readonly (Stated & { readonly id: string })[]>()
  for (const kind of kinds) {
    const before = await knownOf(scope, kind, systemId)
    const objects = recognised(kind, before, stated[kind.name] ?? [], notKept)
    known.set(kind.name, before)
    found.set(kind.name, objects)
    ids.set(kind.name, new Map(objects.map(({ id, locator }) => [locator, id])))
  }
  for (const name of new Set(kinds.flatMap(kind => Object.values(kind.references) as KindName[])))
    if (!ids.has(name) && isLocated(kindOf(name))) ids.set(name, await idsOf(scope, name, systemId))
  return { ids, known, found }
}

/** Notes that what is known and was not kept of a whole reading is missing from now on. @returns how many are */
async function miss(
  scope: Required<Scope>,
  { name }: ObjectKind,
  known: readonly Known[],
  kept: ReadonlySet<string>,
): Promise<number> {
  const missing = known.filter(each => !each.isMissing && !kept.has(each.id)).map(each => each.id)
  if (missing.length > 0)
    await run(scope, `update ${tableOf(name)} set missing_since = now() where id = any($1) and missing_since is null`, [
      missing,
    ])
  return missing.length
}

/** An object with the ids of what it names by locators: a field `poolId` by its `poolLocator`. */
function withReferences(
  kind: ObjectKind,
  object: Stated,
  ids: ReadonlyMap<KindName, ReadonlyMap<string, string>>,
): { readonly object: Fields } | { readonly lacks: KindName } {
  const whole: Record<string, unknown> = { ...object }
  for (const { field, isNullable } of fieldsOf(kind)) {
    const name = (kind.references as Partial<Record<string, KindName>>)[field]
    // What no system states is found by other means before.
    if (name === undefined || !isLocated(kindOf(name))) continue
    const locator = whole[field.replace(/Id$/, 'Locator')]
    const id = typeof locator === 'string' ? ids.get(name)?.get(locator) : undefined
    if (id === undefined && !isNullable) return { lacks: name }
    whole[field] = id ?? null
  }
  const [first] = kind.oneOf ?? []
  if (first !== undefined && (kind.oneOf ?? []).every(field => whole[field] === null))
    return { lacks: (kind.references as Partial<Record<string, KindName>>)[first] ?? kind.name }
  return { object: whole }
}

interface Known {
  readonly id: string
  readonly locator: string
  readonly name: string
  readonly isMissing: boolean
}

const knownOf = (scope: Scope, { name, durableName }: ObjectKind, systemId: string) =>
  rows<Known>(
    scope,
    `select id, locator, ${durableName === undefined ? "''" : columnOf(durableName)} as name, missing_since is not null as "isMissing"
     from ${tableOf(name)} where system_id = $1`,
    [systemId],
  )

/** Gives each object that was found the id under which it is known: by its durable name, else by its place. */
function recognised(
  { durableName }: ObjectKind,
  known: readonly Known[],
  found: readonly Stated[],
  notKept: NotKept[],
): (Stated & { readonly id: string })[] {
  const byName = new Map(known.filter(each => each.name !== '').map(each => [each.name, each]))
  const byPlace = new Map(
    [...known].sort((a, b) => Number(b.isMissing) - Number(a.isMissing)).map(each => [each.locator, each]),
  )
  const names = new Set<string>()
  const places = new Set<string>()
  return found.flatMap(object => {
    const name = durableName === undefined ? '' : String((object as unknown as Fields)[durableName] ?? '')
    if ((name !== '' && names.has(name)) || places.has(object.locator)) {
      notKept.push({
        locator: object.locator,
        why: `Another object of the same reading has its ${name === '' ? 'place' : `name, ${name}`}.`,
      })
      return []
    }
    names.add(name)
    places.add(object.locator)
    const there = byPlace.get(object.locator)
    // Where something with another durable name stood, this is another object at that place.
    const same = byName.get(name) ?? (there !== undefined && (there.name === '' || name === '') ? there : undefined)
    return [{ ...object, id: same?.id ?? uuid() }]
  })
}

/** Columns that a reading fills, with their types. */
const filled = (kind: ObjectKind) =>
  fieldsOf(kind)
    .filter(({ field }) => !['id', 'systemId', 'locator', 'revision', ...kind.ours].includes(field))
    .map(({ field, type }) => ({ field, column: columnOf(field), type: columnTypes[type] }))

/** How many rows go to the database in one statement: what is sent of them is all that stands in memory twice. */
const rowsAtOnce = 2000

/**
 * Written by hand: one statement for many rows of a kind, which is what makes 100,000 of them a matter of seconds.
 * @returns how many were new or otherwise than before
 */
async function write(
  scope: Required<Scope>,
  kind: ObjectKind,
  systemId: string,
  objects: readonly Fields[],
): Promise<number> {
  const table = tableOf(kind.name)
  const columns = filled(kind)
  const names = columns.map(({ column }) => column)
  const list = toJson(
    objects.map(object => ({
      id: object['id'],
      locator: object['locator'],
      ...Object.fromEntries(columns.map(({ field, column }) => [column, object[field]])),
    })),
  )
  // What has changed is found by a join first: a conflict alone would lock every row that is as it was, and locks are written too.
  const of = (row: string) => `(${[`${row}.locator`, ...names.map(name => `${row}.${name}`)].join(', ')})`
  const stored = await rows<{ readonly count: number }>(
    scope,
    `with given as (
       select * from jsonb_to_recordset($2::jsonb) as r(id uuid, locator text, ${columns.map(({ column, type }) => `${column} ${type}`).join(', ')})),
     changed as (
       select given.* from given left join ${table} known on known.id = given.id
       where known.id is null or known.missing_since is not null or ${of('known')} is distinct from ${of('given')}),
     stored as (
       insert into ${table} (id, system_id, locator, ${names.join(', ')})
       select id, $1, locator, ${names.join(', ')} from changed
       on conflict (id) do update set locator = excluded.locator, missing_since = null, ${names.map(name => `${name} = excluded.${name}`).join(', ')}
       returning 1)
     select count(*)::int as count from stored`,
    [systemId, list],
  )
  return stored[0]?.count ?? 0
}

async function idsOf(scope: Scope, name: KindName, systemId: string): Promise<Map<string, string>> {
  const ids = await rows<{ readonly id: string; readonly locator: string }>(
    scope,
    `select id, locator from ${tableOf(name)} where system_id = $1 and missing_since is null`,
    [systemId],
  )
  return new Map(ids.map(({ id, locator }) => [locator, id]))
}
