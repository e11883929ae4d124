import type { Share, ShareBy } from '@/core/views'
import { rows, type Scope } from '../database'

/** Who a volume counts for, once: the application that is named; where none is, that of several groups of hosts which comes first by name. */
const parts: Readonly<Record<ShareBy, { readonly id: string; readonly name: string; readonly from: string }>> = {
  application: {
    id: 'case when volumes.application is null then seen.id end',
    name: 'coalesce(volumes.application, seen.name)',
    from: `left join lateral (
      select host_groups.id, host_groups.name from mappings join host_groups on host_groups.id = mappings.host_group_id
      where mappings.volume_id = volumes.id order by host_groups.name limit 1) as seen on true`,
  },
  class: {
    id: 'service_classes.id',
    name: 'service_classes.name',
    from: 'left join service_classes on service_classes.id = volumes.class_id',
  },
  system: { id: 'systems.id', name: 'systems.name', from: 'join systems on systems.id = volumes.system_id' },
  site: {
    id: 'sites.id',
    name: 'sites.name',
    from: 'join systems on systems.id = volumes.system_id left join sites on sites.id = systems.site_id',
  },
}

/** What volumes take, by whom they are of; each volume once, so that the parts add up to all. The largest first. */
export async function capacityShares(scope: Scope, by: ShareBy): Promise<Share[]> {
  const { id, name, from } = parts[by]
  const found = await rows<{
    readonly id: string | null
    readonly name: string | null
    readonly volumes: string
    readonly size: string
    readonly written: string
  }>(
    scope,
    `select ${id} as id, ${name} as name, count(*) as volumes, sum(volumes.size_bytes) as size, sum(volumes.written_bytes) as written
     from volumes ${from} where volumes.missing_since is null
     group by 1, 2 order by sum(volumes.written_bytes) desc, 2`,
  )
  return found.map(each => ({
    id: each.id ?? undefined,
    name: each.name ?? 'none',
    volumes: Number(each.volumes),
    sizeBytes: BigInt(each.size),
    writtenBytes: BigInt(each.written),
  }))
}
