import { provisionableBytes, type Pool } from '@/core/estate'
import type { Part, Thread } from '@/core/threads'
import type { PartState, ThreadPage } from '@/core/views'
import { row, rows, type Scope } from '../database'
import { pools as allPools } from './estatePage'
import { standingFindings } from './rowPage'

/** Threads that are drawn: those that miss their promise by most come first. */
const mostThreads = 24

interface VolumeRow {
  readonly id: string
  readonly name: string
  readonly pool_id: string
  readonly system_id: string
  readonly application: string | null
  readonly p95: number | null
  readonly promised: number | null
  readonly groups: readonly { readonly id: string; readonly name: string; readonly hosts: readonly string[] }[] | null
}

interface GroupRow {
  readonly pool_id: string
  readonly group_index: number | null
  readonly drives: number
  readonly failed: number
  readonly failing: number
}

/**
 * The ways from applications to drives, with how each part stands. @param sel a part that is to be among them, `volume/<id>` or another key
 */
export async function threadPage(scope: Scope, sel: string | undefined): Promise<ThreadPage> {
  const volumes = await volumeRows(scope, sel)
  const total = await row<{ readonly total: number }>(
    scope,
    `select count(*)::int as total from volumes where missing_since is null and state = 'in use'`,
  )
  const poolIds = [...new Set(volumes.map(({ pool_id }) => pool_id))]
  const pools = (await allPools(scope)).filter(({ id }) => poolIds.includes(id))
  const groups = await groupRows(scope, poolIds)
  const states: Record<string, PartState> = {}
  const put = (part: Part, state: PartState) => {
    states[part.key] = state
    return part
  }
  const threads = byPool(volumes).map((volume): Thread => {
    const pool = pools.find(({ id }) => id === volume.pool_id)
    const application = volume.application ?? volume.groups?.[0]?.name
    return {
      application:
        application === undefined
          ? []
          : [
              put(
                { key: `application/${application}`, stop: 'application', name: application },
                applicationState(volumes, application),
              ),
            ],
      hosts: (volume.groups ?? []).map(group =>
        put(
          { key: `hosts/${group.id}`, stop: 'hosts', name: group.name },
          {
            ...{ gravity: 'fine', words: group.hosts.slice(0, 3).join(', '), systemId: null },
            href: `/provision/hosts?hostGroupId=${group.id}`,
          },
        ),
      ),
      volume: [put({ key: `volume/${volume.id}`, stop: 'volume', name: volume.name }, volumeState(volume))],
      pool: pool === undefined ? [] : [put({ key: `pool/${pool.id}`, stop: 'pool', name: pool.name }, poolState(pool))],
      drives: groups
        .filter(group => group.pool_id === volume.pool_id)
        .map(group => put(groupPart(group), groupState(group, volume.system_id))),
    }
  })
  const systemIds = new Set(Object.values(states).flatMap(({ systemId }) => systemId ?? []))
  const findings = (await standingFindings(scope, null)).filter(({ systemId }) => systemIds.has(systemId))
  return { threads, states, total: total?.total ?? 0, findings }
}

/** Those of one pool beside each other, in the order in which their pools come first: lines cross less. */
const byPool = (volumes: readonly VolumeRow[]) => {
  const order = [...new Set(volumes.map(({ pool_id }) => pool_id))]
  return order.flatMap(poolId => volumes.filter(({ pool_id }) => pool_id === poolId))
}

/** Those that miss their promise by most, then the slowest; what is selected stands among them. */
const volumeRows = (scope: Scope, sel: string | undefined): Promise<VolumeRow[]> => {
  const [stop, ...rest] = (sel ?? '').split('/')
  const value = rest.join('/')
  return rows<VolumeRow>(
    scope,
    `with chosen as (
       (select volumes.id from volumes
          left join service_classes on service_classes.id = class_id
          left join metric_series on object_id = volumes.id and metric = 'latency'
        where volumes.missing_since is null and volumes.state = 'in use'
          and case $1 when 'volume' then volumes.id::text = $2 when 'pool' then pool_id::text = $2
            when 'drives' then pool_id::text = split_part($2, ':', 1) when 'application' then application = $2
            when 'hosts' then exists (select from mappings where volume_id = volumes.id and host_group_id::text = $2) else false end
        order by recent_p95 * 1000 / latency_milliseconds desc nulls last, recent_p95 desc nulls last, volumes.id limit ${mostThreads})
       union
       (select object_id from metric_series join volumes on volumes.id = object_id left join service_classes on service_classes.id = class_id
        where metric = 'latency' and recent_p95 is not null and volumes.missing_since is null and volumes.state = 'in use'
        order by greatest(recent_p95 * 1000 / latency_milliseconds, 1) desc nulls last, recent_p95 desc, object_id limit ${mostThreads})
       union
       (select volumes.id from volumes where missing_since is null and state = 'in use' order by written_bytes desc, id limit ${mostThreads})
     )
     select volumes.id, volumes.name, pool_id, volumes.system_id, application, recent_p95 as p95,
       (latency_milliseconds / 1000.0)::float8 as promised,
       (select jsonb_agg(jsonb_build_object('id', host_groups.id, 'name', host_groups.name, 'hosts',
          (select coalesce(jsonb_agg(hosts.name order by hosts.name), '[]'::jsonb) from hosts where host_group_id = host_groups.id)) order by host_groups.name)
        from mappings join host_groups on host_groups.id = host_group_id where volume_id = volumes.id) as groups
     from chosen join volumes using (id) left join service_classes on service_classes.id = class_id
       left join metric_series on object_id = volumes.id and metric = 'latency'
     order by (case $1 when 'volume' then volumes.id::text = $2 when 'pool' then pool_id::text = $2
         when 'drives' then pool_id::text = split_part($2, ':', 1) when 'application' then application = $2 else false end) desc,
       recent_p95 * 1000 / latency_milliseconds desc nulls last, recent_p95 desc nulls last, written_bytes desc limit ${mostThreads}`,
    [stop ?? '', value],
  )
}

const groupRows = (scope: Scope, poolIds: readonly string[]): Promise<GroupRow[]> =>
  rows<GroupRow>(
    scope,
    `select pool_id, group_index, count(*)::int as drives, (count(*) filter (where state = 'failed'))::int as failed,
       (count(*) filter (where state = 'failing'))::int as failing
     from drives where pool_id = any($1::uuid[]) and missing_since is null and role in ('data', 'cache')
     group by pool_id, group_index order by pool_id, group_index`,
    [poolIds],
  )

const milliseconds = (seconds: number) => (seconds * 1000).toFixed(seconds < 0.01 ? 1 : 0)
/** More than this part of a promise is used up: it is at risk. */
const nearRatio = 0.8

function latencyState(p95: number | null, promised: number | null): Pick<PartState, 'gravity' | 'words'> {
  if (p95 === null) return { gravity: 'unknown', words: 'not measured' }
  if (promised === null) return { gravity: 'fine', words: `${milliseconds(p95)} ms` }
  const gravity = p95 > promised ? 'now' : p95 > promised * nearRatio ? 'soon' : 'fine'
  return { gravity, words: `${milliseconds(p95)} of ${milliseconds(promised)} ms` }
}

const volumeState = ({ id, p95, promised, system_id }: VolumeRow): PartState => ({
  ...latencyState(p95, promised),
  href: `/watch/performance?sel=${id}`,
  systemId: system_id,
})

/** An application is as slow as the volume that misses its promise by most. */
function applicationState(volumes: readonly VolumeRow[], name: string): PartState {
  const own = volumes.filter(each => (each.application ?? each.groups?.[0]?.name) === name)
  const used = ({ p95, promised }: VolumeRow) => (p95 ?? 0) / (promised ?? Number.POSITIVE_INFINITY) + (p95 ?? 0) * 1e-6
  const [worst] = [...own].sort((a, b) => used(b) - used(a))
  return {
    ...latencyState(worst?.p95 ?? null, worst?.promised ?? null),
    href: `/provision?application=${encodeURIComponent(name)}`,
    systemId: null,
  }
}

function poolState(pool: Pool): PartState {
  const capacity = Number(provisionableBytes(pool))
  const fill = capacity === 0 ? 0 : Number(pool.writtenBytes) / capacity
  const isHurt = pool.state === 'degraded' || pool.state === 'failed'
  return {
    gravity: isHurt ? 'now' : fill >= 0.9 ? 'soon' : 'fine',
    words: isHurt ? pool.state : `${(fill * 100).toFixed(0)}%`,
    href: `/watch?sel=${pool.id}`,
    systemId: pool.systemId,
  }
}

const groupPart = ({ pool_id, group_index, drives }: GroupRow): Part => ({
  key: `drives/${pool_id}:${group_index ?? 'all'}`,
  stop: 'drives',
  name: group_index === null ? `${drives} drives` : `group ${group_index + 1}, ${drives} drives`,
})

const groupState = ({ failed, failing }: GroupRow, systemId: string): PartState => ({
  gravity: failed > 0 ? 'now' : failing > 0 ? 'soon' : 'fine',
  words: failed > 0 ? `${failed} failed` : failing > 0 ? `${failing} failing` : 'whole',
  href: `/build/systems/${systemId}`,
  systemId,
})
