import { storable } from '@/core/input'
import type { VolumeLine, VolumeSort } from '@/core/views'
import { row, rows, type Scope } from '../database'

export interface VolumeQuestion {
  readonly filter?: string
  readonly state?: 'in use' | 'holding'
  readonly poolId?: string
  readonly classId?: string
  readonly sort?: VolumeSort
  readonly isDescending?: boolean
  readonly offset?: number
  readonly limit?: number
}

const orderBy: Readonly<Record<VolumeSort, string>> = {
  name: 'name collate natural_order',
  size: 'size_bytes',
  written: 'written_bytes',
}
const mostLines = 500

/** What is looked for in NAA names, as a pattern; empty where the text is no part of one. Colons, dashes and a leading `naa.` are left out. */
function naaPattern(filter: string): string {
  const digits = filter
    .toLowerCase()
    .replace(/^(naa\.|0x)/, '')
    .replace(/[:\s-]/g, '')
  return /^(?=.*[0-9])[0-9a-f]{4,32}$/.test(digits) ? `%${digits}%` : ''
}

/** One page of volumes, and how many there are in all. The order is served by the indices volumes_by_sorted_name, _size and _written. */
export async function volumeList(
  scope: Scope,
  question: VolumeQuestion,
): Promise<{ readonly total: number; readonly items: readonly VolumeLine[] }> {
  const direction = question.isDescending === true ? 'desc' : 'asc'
  const column = orderBy[question.sort ?? 'name']
  const where = `($1 = '' or volumes.name ilike $2 or ($3 <> '' and volumes.naa like $3)) and ($4::text is null or volumes.state = $4) and ($5::uuid is null or volumes.pool_id = $5) and ($6::uuid is null or volumes.class_id = $6)`
  const filter = storable(question.filter ?? '').trim()
  const bind = [
    filter,
    `%${filter.replace(/[%_\\]/g, '\\$&')}%`,
    naaPattern(filter),
    question.state ?? null,
    question.poolId ?? null,
    question.classId ?? null,
  ]
  const total = await row<{ readonly total: number }>(
    scope,
    `select count(*)::int as total from volumes where ${where}`,
    bind,
  )
  // The page is cut by the index alone before anything is read or joined: joining 100,000 rows to show 200 took forty times as long.
  const lines = await rows<{
    id: string
    name: string
    naa: string
    system_name: string
    pool_name: string
    size_bytes: string
    written_bytes: string
    is_thin: boolean
    state: VolumeLine['state']
    group_names: string[] | null
    class_name: string | null
    missing_since: Date | null
  }>(
    scope,
    `with page as (
       select id from volumes where ${where} order by ${column} ${direction}, id ${direction} offset $7 limit $8)
     select volumes.id, volumes.name, volumes.naa, systems.name as system_name, pools.name as pool_name, volumes.size_bytes::text,
       volumes.written_bytes::text, volumes.is_thin, volumes.state, volumes.missing_since, service_classes.name as class_name,
       (select array_agg(group_name order by group_name) from mappings where volume_id = volumes.id and missing_since is null) as group_names
     from page join volumes using (id) join systems on systems.id = volumes.system_id join pools on pools.id = volumes.pool_id
       left join service_classes on service_classes.id = volumes.class_id
     order by volumes.${column} ${direction}, volumes.id ${direction}`,
    [...bind, Math.max(0, question.offset ?? 0), Math.min(mostLines, Math.max(1, question.limit ?? 200))],
  )
  return {
    total: total?.total ?? 0,
    items: lines.map(each => ({
      id: each.id,
      name: each.name,
      naa: each.naa,
      systemName: each.system_name,
      poolName: each.pool_name,
      sizeBytes: each.size_bytes,
      writtenBytes: each.written_bytes,
      isThin: each.is_thin,
      state: each.state,
      className: each.class_name,
      groupNames: each.group_names ?? [],
      missingSince: each.missing_since?.toISOString() ?? null,
    })),
  }
}
