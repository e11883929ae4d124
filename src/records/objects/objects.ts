import {
  fieldsOf,
  isLocated,
  kindOf,
  type FieldOf,
  type KindName,
  type ObjectKind,
  type ObjectTypes,
} from '@/core/estate'
import { literal, Op, type Order, type OrderItem, type WhereOptions } from 'sequelize'
import type { Scope } from '../database'
import { columnOf, modelOf } from './kindModel'

/** Which objects of a kind, in what order, and how many at most. */
export interface Which<Name extends KindName = KindName> {
  /** Fields with the values that they may have. */
  readonly where?: { readonly [Field in FieldOf<Name>]?: unknown }
  /** Sequelize's own conditions, for what `where` cannot say. */
  readonly and?: WhereOptions
  readonly order?: Order
  readonly offset?: number
  readonly limit?: number
  /** Also what the system no longer states. */
  readonly isMissingToo?: boolean
}

/** Objects of a kind as the model has them: those that are not missing, in the kind's order, unless said otherwise. */
export async function objects<Name extends KindName>(
  { database, transaction }: Scope,
  name: Name,
  which: Which<Name> = {},
): Promise<ObjectTypes[Name][]> {
  const kind = kindOf(name)
  const found = await modelOf(database, name).findAll({
    attributes: fieldsOf(kind).map(({ field }) => field),
    where: conditions(kind, which),
    order: which.order ?? kind.order.map(field => inOrder(kind, field, 'ASC')),
    // Instances cost more than the rows that they carry: at 20,000 drives most of the time of a page.
    raw: true,
    transaction: transaction ?? null,
    ...(which.offset === undefined ? {} : { offset: which.offset }),
    ...(which.limit === undefined ? {} : { limit: which.limit }),
  })
  const take = reader(kind)
  return found.map(row => take(row as unknown as Record<string, unknown>) as unknown as ObjectTypes[Name])
}

/** The object with an id, missing or not. */
export const object = async <Name extends KindName>(
  scope: Scope,
  name: Name,
  id: string,
): Promise<ObjectTypes[Name] | undefined> =>
  (await objects(scope, name, { and: { id }, isMissingToo: true, limit: 1 }))[0]

/** How many objects of a kind there are. */
export const objectCount = <Name extends KindName>(
  { database, transaction }: Scope,
  name: Name,
  which: Which<Name> = {},
): Promise<number> =>
  modelOf(database, name).count({
    where: conditions(kindOf(name), which),
    transaction: transaction ?? null,
  })

/** In the order of a field; of names as readers count: port 2 before port 10. */
export function inOrder(kind: ObjectKind, field: string, direction: 'ASC' | 'DESC'): OrderItem {
  const isText = fieldsOf(kind).some(each => each.field === field && each.type === 'text')
  return [isText ? literal(`"${kind.name}"."${columnOf(field)}" collate natural_order`) : field, direction]
}

const conditions = (kind: ObjectKind, { where = {}, and = {}, isMissingToo = false }: Which): WhereOptions => ({
  [Op.and]: [where as WhereOptions, and, ...(isLocated(kind) && !isMissingToo ? [{ missingSince: null }] : [])],
})

const readers = new Map<string, (row: Record<string, unknown>) => Record<string, unknown>>()

/** Makes a row what the model says: PostgreSQL gives NUMERIC as text, and instants as dates. */
function reader(kind: ObjectKind) {
  const known = readers.get(kind.name)
  if (known !== undefined) return known
  const bytes = fieldsOf(kind).filter(({ type }) => type === 'bytes')
  const instants = fieldsOf(kind).filter(({ type }) => type === 'instant')
  const made = (row: Record<string, unknown>) => {
    for (const { field } of bytes) if (row[field] !== null) row[field] = BigInt(row[field] as string)
    for (const { field } of instants) if (row[field] instanceof Date) row[field] = row[field].toISOString()
    return row
  }
  readers.set(kind.name, made)
  return made
}
