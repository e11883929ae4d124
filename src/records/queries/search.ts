import { kindList, type ObjectKind } from '@/core/estate'
import { storable } from '@/core/input'
import type { Hit } from '@/core/views'
import { rows, type Scope } from '../database'
import { columnOf, tableOf } from '../objects'

const mostOfAKind = 6
/** Of what fits, so many are compared: what thousands have tells nobody apart. */
const mostWeighed = 1000

/** Hits of one kind, the shortest title first. Written by hand: one statement over all kinds, each by its own indices. */
function hitsOf({ name, words, schema, search }: ObjectKind): string[] {
  if (search === undefined) return []
  const { by, title, detail } = search
  const columns = (by as readonly string[]).map(field => `${columnOf(field)}::text ilike $1`)
  const systemId = name === 'systems' ? 'id::text' : 'systemId' in schema.properties ? 'system_id::text' : 'null::text'
  return [
    `(select '${words.one}' as kind, id::text, ${columnOf(title)} as name, coalesce(${columnOf(detail)}, '') as detail, ${systemId} as "systemId"
      from (select * from ${tableOf(name)} where ${columns.join(' or ')} limit ${mostWeighed}) as found
      order by length(${columnOf(title)}) limit $2)`,
  ]
}

const statement = [
  ...kindList.flatMap(hitsOf),
  `(select 'change', id::text, title, state, null from changes where title ilike $1 order by number desc limit $2)`,
].join(' union all ')

/** Finds objects by what their kinds are found by (name, serial number, WWN …), a few of each kind, best matches first. */
export async function search(scope: Scope, text: string): Promise<Hit[]> {
  const wanted = storable(text).trim()
  if (wanted.length < 2) return []
  const like = `%${wanted.replace(/[%_\\]/g, '\\$&')}%`
  return rows<Hit>(scope, statement, [like, mostOfAKind])
}
