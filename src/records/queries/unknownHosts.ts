import type { UnknownHosts, UnknownInitiator } from '@/core/views'
import { rows, type Scope } from '../database'

const mostShown = 12

/** Names by which somebody logs in to systems and which belong to no registered host. */
export async function unknownHosts(scope: Scope): Promise<UnknownHosts> {
  const found = await rows<UnknownInitiator & { readonly total: number }>(
    scope,
    `with named as (
       select systems.name as system, grouped ->> 'name' as "group", initiator
       from systems cross join jsonb_array_elements(access_groups) as grouped
         cross join jsonb_array_elements_text(grouped -> 'initiators') as initiator
       union all
       select systems.name, null, initiator from systems cross join jsonb_array_elements_text(ungrouped) as initiator)
     select initiator, array_agg(distinct system order by system) as systems,
       coalesce(array_agg(distinct "group" order by "group") filter (where "group" is not null), '{}') as groups,
       (count(*) over ())::int as total
     from named
     where initiator <> '' and not exists (select from hosts where hosts.initiators ? initiator)
     group by initiator order by count("group") = 0, initiator limit ${mostShown}`,
  )
  return {
    items: found.map(({ initiator, systems, groups }) => ({ initiator, systems, groups })),
    total: found[0]?.total ?? 0,
  }
}
