import type { Asked } from '@/app/server/answer'
import { kindList } from '@/core/estate'
import { objectList, type ObjectQuestion } from '@/records/queries'
import { isListed, listOf, type KindOperationId, type ListedKind } from '../contract/kinds'

const inShape = new Set(['filter', 'sort', 'descending', 'offset', 'limit'])

/** The contract lets through only what these may be. */
const questionOf = (query: Asked['query']): ObjectQuestion => ({
  filter: String(query['filter'] ?? ''),
  isDescending: query['descending'] === 'true',
  within: Object.fromEntries(
    Object.entries(query).flatMap(([name, value]) => (inShape.has(name) ? [] : [[name, String(value)]])),
  ),
  ...(query['sort'] === undefined ? {} : { sort: String(query['sort']) }),
  ...(query['offset'] === undefined ? {} : { offset: Number(query['offset']) }),
  ...(query['limit'] === undefined ? {} : { limit: Number(query['limit']) }),
})

const listing =
  (name: ListedKind) =>
  ({ scope, query }: Asked) =>
    objectList(scope, name, questionOf(query))

/** The list of each kind of object. */
export const kindHandlers = Object.fromEntries(
  kindList.flatMap(({ name }) => (isListed(name) ? [[listOf(name), listing(name)] as const] : [])),
) as Record<KindOperationId, ReturnType<typeof listing>>
