import { fieldsOf, kindOf, type KindName, type ObjectKind, type ObjectTypes } from '@/core/estate'
import { storable } from '@/core/input'
import type { ObjectList } from '@/core/views'
import { cast, col, fn, literal, Op, where, type OrderItem, type WhereOptions } from 'sequelize'
import type { Scope } from '../database'
import { columnOf, inOrder, objectCount, objects, tableOf } from '../objects'
import { hasName, namesFor, referencesOf } from './references'

export interface ObjectQuestion {
  /** Looked for in what the kind is found by. */
  readonly filter?: string
  /** Fields with the value that they have, such as the id of another object. */
  readonly within?: Readonly<Record<string, string | number | boolean>>
  /** A list that is empty. */
  readonly without?: string
  readonly sort?: string
  readonly isDescending?: boolean
  readonly offset?: number
  readonly limit?: number
}

const usualLines = 1000

/** One page of a kind's objects, and how many there are in all. */
export async function objectList<Name extends KindName>(
  scope: Scope,
  name: Name,
  question: ObjectQuestion = {},
): Promise<ObjectList<ObjectTypes[Name]>> {
  const kind = kindOf(name)
  const and: WhereOptions = {
    [Op.and]: [
      (question.within ?? {}) as WhereOptions,
      ...filtered(kind, question.filter),
      ...lacking(kind, question.without),
    ],
  }
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

const lacking = ({ name }: ObjectKind, field: string | undefined): WhereOptions[] =>
  field === undefined ? [] : [where(fn('jsonb_array_length', col(`${name}.${columnOf(field)}`)), 0)]

/** By a field, and within the same by id, so that no line stands on two pages; by a reference as by the other's name. */
function ordered(kind: ObjectKind, { sort, isDescending = false }: ObjectQuestion): OrderItem[] | undefined {
  if (sort === undefined) return undefined
  const direction = isDescending ? 'DESC' : 'ASC'
  const of = referencesOf(kind)[sort]
  const first: OrderItem =
    of === undefined || !hasName(of) ? inOrder(kind, sort, direction) : [nameOf(kind, sort, of), direction]
  return [first, ['id', direction]]
}

const nameOf = (kind: ObjectKind, field: string, of: KindName) =>
  literal(
    `(select other.name collate natural_order from ${tableOf(of)} other where other.id = "${kind.name}".${columnOf(field)})`,
  )
