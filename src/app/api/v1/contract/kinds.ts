import { fieldsOf, idSchema, isLocated, kindList, type KindName, type ObjectKind } from '@/core/estate'
import type { Operation } from './Operation'
import { list, object, text, whole } from './shapes'

/** Kinds whose list has a shape of its own: a volume's line says more than the volume. */
export type ListedKind = Exclude<KindName, 'volumes'>
export type KindOperationId = `list${Capitalize<ListedKind>}`

export const isListed = (name: KindName): name is ListedKind => name !== 'volumes'
export const listOf = (name: ListedKind) => `list${name[0]?.toUpperCase()}${name.slice(1)}` as KindOperationId

/** Where the API lists a kind. */
export const operationPath = (name: KindName) => `/${name.replace(/[A-Z]/g, letter => `-${letter.toLowerCase()}`)}`

/** The most lines that one answer has. */
const mostLines = 5000

/** What the lines of a kind may be sorted by: what has an order. */
const sortable = (kind: ObjectKind) =>
  fieldsOf(kind)
    .filter(({ type, field }) => type !== 'json' && field !== 'id')
    .map(({ field }) => field)

/** Parameters that name another object, such as the system in which it stands. */
const within = (kind: ObjectKind) =>
  Object.fromEntries(
    [...(isLocated(kind) ? ['systemId'] : []), ...Object.keys(kind.references)].map(field => [field, idSchema]),
  )

const listing = (kind: ObjectKind): Operation => ({
  method: 'get',
  path: operationPath(kind.name),
  summary: `A page of ${kind.words.many}, sorted and filtered at the server, with the names of what they refer to`,
  query: {
    ...within(kind),
    ...(kind.search === undefined ? {} : { filter: text(120) }),
    sort: { enum: sortable(kind) },
    descending: { enum: ['true', 'false'] },
    offset: whole,
    limit: { type: 'integer', minimum: 1, maximum: mostLines },
  },
  answers: object({
    total: whole,
    items: list(kind.schema),
    names: { type: 'object', additionalProperties: text() },
  }),
})

/** A list of each kind of object, as the kind itself says. */
export const kindOperations = Object.fromEntries(
  kindList.flatMap(kind => (isListed(kind.name) ? [[listOf(kind.name), listing(kind)] as const] : [])),
) as Record<KindOperationId, Operation>
