import { storable } from '@/core/input'
import type { Hit } from '@/core/views'
import { rows, type Scope } from '../database'

const mostOfAKind = 6

/** Finds objects by name, serial number or WWN, a few of each kind, best matches first. */
export async function search(scope: Scope, text: string): Promise<Hit[]> {
  const wanted = storable(text).trim()
  if (wanted.length < 2) return []
  const like = `%${wanted.replace(/[%_\\]/g, '\\$&')}%`
  const found = await rows<{ kind: Hit['kind']; id: string; name: string; detail: string; system_id: string | null }>(
    scope,
    `(select 'system' as kind, id::text, name, maker || ' ' || model as detail, id::text as system_id from systems where name ilike $1 or serial ilike $1 order by length(name) limit $2)
     union all (select 'pool', id::text, name, 'pool', system_id::text from pools where name ilike $1 order by length(name) limit $2)
     union all (select 'volume', id::text, name, naa, system_id::text from volumes where name ilike $1 or naa ilike $1 order by length(name) limit $2)
     union all (select 'host', id::text, name, coalesce(operating_system, ''), null from hosts where name ilike $1 or initiators::text ilike $1 order by length(name) limit $2)
     union all (select 'drive', id::text, serial, name, system_id::text from drives where serial ilike $1 or wwn ilike $1 limit $2)
     union all (select 'change', id::text, title, state, null from changes where title ilike $1 order by number desc limit $2)`,
    [like, mostOfAKind],
  )
  return found.map(each => ({
    kind: each.kind,
    id: each.id,
    name: each.name,
    detail: each.detail,
    systemId: each.system_id,
  }))
}
