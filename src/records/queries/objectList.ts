import { fieldsOf, isLocated, kindOf, type KindName, type ObjectKind, type ObjectTypes } from '@/core/estate'
import { storable } from '@/core/input'
import type { ObjectList } from '@/core/views'
import { cast, col, literal, Op, where, type OrderItem, type WhereOptions } from 'sequelize'
import type { Scope } from '../database'
import { columnOf, modelOf, objectCount, objects, tableOf } from '../objects'

export interface ObjectQuestion {
  /** Looked for in what the kind is found by. */
  readonly filter?: string
  /** Fields that name another object, with its id. */
  readonly within?: Readonly<Record<string, string>>
  readonly sort?: string
  readonly isDescending?: boolean
  readonly offset?: number
  readonly limit?: number
}

const usualLines = 1000

/** The kinds to which an object refers, by field. */
const referencesOf = (kind: ObjectKind): Readonly<Record<string, KindName>> => ({
  ...(isLocated(kind) ? { systemId: 'systems' } : {}),
  ...(kind.references as Readonly<Record<string, KindName>>),
})

/** One page of a kind's objects, and how many there are in all. */
export async function objectList<Name extends KindName>(
  scope: Scope,
  name: Name,
  question: ObjectQuestion = {},
): Promise<ObjectList<ObjectTypes[Name]>> {
  const kind = kindOf(name)
  const and: WhereOptions = { [Op.and]: [(question.within ?? {}) as WhereOptions, ...filtered(kind, question.filter)] }
  const order = ordered(kind, question)
  const items = await objects(scope, name, {
    and,
    ...(order === undefined ? {} : { order }),
    offset: question.offset ?? 0,
    limit: question.limit ?? usualLines,
  })
  return { total: await objectCount(scope, name, { and }), items, names: await namesFor(scope, kind, items) }
}

function filtered({ name, schema, search }: ObjectKind, filter = ''): WhereOptions[] {
  const wanted = storable(filter).trim()
  if (wanted === '' || search === undefined) return []
  const types = new Map(fieldsOf({ schema }).map(({ field, type }) => [field, type]))
  const like = { [Op.iLike]: `%${wanted.replace(/[%_\\]/g, '\\$&')}%` }
  return [
    {
      [Op.or]: (search.by as readonly string[]).map(field =>
        types.get(field) === 'text' ? { [field]: like } : where(cast(col(`${name}.${columnOf(field)}`), 'text'), like),
      ),
    },
  ]
}

/** By a field, and within the same by id, so that no line stands on two pages; by a reference as by the other's name. */
function ordered(kind: ObjectKind, { sort, isDescending = false }: ObjectQuestion): OrderItem[] | undefined {
  if (sort === undefined) return undefined
  const direction = isDescending ? 'DESC' : 'ASC'
  const of = referencesOf(kind)[sort]
  const by = of === undefined || !hasName(of) ? sort : nameOf(kind, sort, of)
  return [[by, direction] as OrderItem, ['id', direction]]
}

const hasName = (name: KindName) => 'name' in kindOf(name).schema.properties
const nameOf = (kind: ObjectKind, field: string, of: KindName) =>
  literal(`(select other.name from ${tableOf(of)} other where other.id = "${kind.name}".${columnOf(field)})`)

async function namesFor(scope: Scope, kind: ObjectKind, items: readonly object[]): Promise<Record<string, string>> {
  const names: Record<string, string> = {}
  for (const [field, of] of Object.entries(referencesOf(kind))) {
    const ids = new Set(items.map(item => (item as Readonly<Record<string, unknown>>)[field]).filter(id => id !== null))
    if (ids.size === 0 || !hasName(of)) continue
    const found = await modelOf(scope.database, of).findAll({
      attributes: ['id', 'name'],
      where: { id: [...ids] as string[] },
      raw: true,
      transaction: scope.transaction ?? null,
    })
    for (const each of found as unknown as { readonly id: string; readonly name: string }[]) names[each.id] = each.name
  }
  return names
}
