import { promisesOf, type PromiseKept } from '@/core/classes'
import type { Pool, ServiceClass, Volume } from '@/core/estate'
import { storable } from '@/core/input'
import type { VolumeLine, VolumeSort } from '@/core/views'
import { row, rows, type Scope } from '../database'
import { estateNow } from '../inventory'
import { objects } from '../objects'
import { pools } from './estatePage'

export interface VolumeQuestion {
  readonly filter?: string
  readonly state?: 'in use' | 'holding'
  readonly poolId?: string
  readonly classId?: string
  readonly application?: string
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

const mostMapped = 20_000

/** Volumes that are shown under a number (`lun 7`), or to hosts or groups whose name or initiator has the text in it. */
async function mappedAs(scope: Scope, filter: string): Promise<readonly string[]> {
  if (filter === '') return []
  const lun = /^lun\s*(\d{1,5})$/i.exec(filter)?.[1]
  const found =
    lun === undefined
      ? await rows<{ readonly volume_id: string }>(
          scope,
          `select distinct volume_id from mappings where volume_id is not null and host_group_id in (
             select id from host_groups where name ilike $1
             union select host_group_id from hosts where name ilike $1 or initiators::text ilike $1)
           limit ${mostMapped}`,
          [likeOf(filter)],
        )
      : await rows<{ readonly volume_id: string }>(
          scope,
          `select distinct volume_id from mappings where volume_id is not null and lun = $1 limit ${mostMapped}`,
          [Number(lun)],
        )
  return found.map(each => each.volume_id)
}

const likeOf = (text: string) => `%${text.replace(/[%_\\]/g, '\\$&')}%`

interface Row {
  readonly id: string
  readonly name: string
  readonly naa: string
  readonly system_name: string
  readonly pool_id: string
  readonly pool_name: string
  readonly size_bytes: string
  readonly written_bytes: string
  readonly lost_bytes: string
  readonly mirror: Volume['mirror']
  readonly is_thin: boolean
  readonly is_image: boolean
  readonly application: string | null
  readonly state: VolumeLine['state']
  readonly group_names: string[] | null
  readonly share_names: string[] | null
  readonly class_id: string | null
  readonly missing_since: Date | null
  readonly growth: number | null
  readonly p95: number | null
  readonly due_at: Date | null
  readonly taken_at: Date | null
}

/** Promises that are kept worse stand first. */
const worstFirst = ['broken', 'at risk', 'not measured', 'kept'] as const satisfies readonly PromiseKept['state'][]

interface Judging {
  readonly classes: ReadonlyMap<string, ServiceClass>
  readonly pools: ReadonlyMap<string, Pool>
  readonly now: Date
}

/** How the worst of what is promised of a volume is kept. */
function worstOf(line: Row, { classes, pools, now }: Judging): PromiseKept['state'] | null {
  const serviceClass = classes.get(line.class_id ?? '')
  if (serviceClass === undefined || line.state !== 'in use') return null
  const [dueAt, takenAt] = [line.due_at?.toISOString() ?? null, line.taken_at?.toISOString() ?? null]
  const snapshots = takenAt === null ? [] : [{ takenAt, dueAt, goesAt: null, state: 'consistent' as const }]
  const kept = promisesOf(
    { lostBytes: BigInt(line.lost_bytes), mirror: line.mirror },
    { serviceClass, pool: pools.get(line.pool_id), snapshots, now, p95Seconds: line.p95 },
  )
  return worstFirst.find(state => kept.some(each => each.state === state)) ?? null
}

/** One page of volumes, and how many there are in all. The order is served by the indices volumes_by_sorted_name, _size and _written. */
export async function volumeList(
  scope: Scope,
  question: VolumeQuestion,
): Promise<{ readonly total: number; readonly items: readonly VolumeLine[] }> {
  const now = await estateNow(scope)
  const bind = await boundOf(scope, question)
  const total = await row<{ readonly total: number }>(
    scope,
    `select count(*)::int as total from volumes where ${where}`,
    bind,
  )
  const lines = await rows<Row>(scope, pageQuery(question), [
    ...bind,
    Math.max(0, question.offset ?? 0),
    Math.min(mostLines, Math.max(1, question.limit ?? 200)),
    now.toISOString(),
  ])
  const judging = { now, classes: byIds(await objects(scope, 'serviceClasses')), pools: byIds(await pools(scope)) }
  return {
    total: total?.total ?? 0,
    items: lines.map(each => lineOf(each, judging)),
  }
}

const where = `($1 = '' or volumes.name ilike $2 or ($3 <> '' and volumes.naa like $3) or volumes.id = any($7::uuid[])) and ($4::text is null or volumes.state = $4) and ($5::uuid is null or volumes.pool_id = $5) and ($6::uuid is null or volumes.class_id = $6) and ($8::text is null or volumes.application = $8)`
async function boundOf(scope: Scope, question: VolumeQuestion) {
  const filter = storable(question.filter ?? '').trim()
  return [
    filter,
    likeOf(filter),
    naaPattern(filter),
    question.state ?? null,
    question.poolId ?? null,
    question.classId ?? null,
    await mappedAs(scope, filter),
    question.application ?? null,
  ]
}

/** The page is cut by the index alone before anything is read or joined: joining 100,000 rows to show 200 took forty times as long. */
function pageQuery(question: VolumeQuestion): string {
  const direction = question.isDescending === true ? 'desc' : 'asc'
  const column = orderBy[question.sort ?? 'name']
  return `with page as (
       select id from volumes where ${where} order by ${column} ${direction}, id ${direction} offset $9 limit $10)
     select volumes.id, volumes.name, volumes.naa, systems.name as system_name, pool_id, pools.name as pool_name, volumes.size_bytes::text,
       volumes.written_bytes::text, volumes.lost_bytes::text, volumes.is_thin, volumes.is_image, volumes.mirror, volumes.application, volumes.state,
       volumes.missing_since, volumes.class_id, latency.recent_p95 as p95, taken.due_at, taken.taken_at,
       case when written.past_at < $11::timestamptz - interval '1 day' then (volumes.written_bytes::float8 - written.past_value)
         / extract(epoch from $11::timestamptz - written.past_at)::float8 * 604800 end as growth,
       (select array_agg(group_name order by group_name) from mappings where volume_id = volumes.id and missing_since is null) as group_names,
       (select array_agg(shares.name order by shares.name) from shares where shares.volume_id = volumes.id and shares.missing_since is null) as share_names
     from page join volumes using (id) join systems on systems.id = volumes.system_id join pools on pools.id = volumes.pool_id
       left join metric_series as written on written.object_id = volumes.id and written.metric = 'written'
       left join metric_series as latency on latency.object_id = volumes.id and latency.metric = 'latency'
       left join lateral (
         select due_at, taken_at from snapshots
         where volume_id = volumes.id and due_at is not null and goes_at is null and snapshots.state = 'consistent'
         order by due_at desc limit 1) taken on volumes.class_id is not null
     order by volumes.${column} ${direction}, volumes.id ${direction}`
}

const lineOf = (each: Row, judging: Judging): VolumeLine => ({
  id: each.id,
  name: each.name,
  naa: each.naa,
  systemName: each.system_name,
  poolName: each.pool_name,
  sizeBytes: each.size_bytes,
  writtenBytes: each.written_bytes,
  isThin: each.is_thin,
  state: each.state,
  className: judging.classes.get(each.class_id ?? '')?.name ?? null,
  promises: worstOf(each, judging),
  application: each.application,
  isImage: each.is_image,
  follows: each.mirror?.role === 'target',
  growthBytes: each.growth,
  groupNames: each.group_names ?? [],
  shareNames: each.share_names ?? [],
  missingSince: each.missing_since?.toISOString() ?? null,
})

const byIds = <T extends { readonly id: string }>(all: readonly T[]) => new Map(all.map(each => [each.id, each]))
