import type { Part, Thread } from '@/core/threads'
import type { PartState, ThreadPage } from '@/core/views'
import { row, rows, type Scope } from '../database'
import { pools as allPools } from './estatePage'
import { standingFindings } from './rowPage'
import {
  applicationState,
  groupPart,
  groupState,
  poolState,
  shareState,
  volumeState,
  type GroupRow,
  type GroupSeeing,
  type VolumeRow,
} from './threadStates'

/** Threads that are drawn: those that miss their promise by most come first. */
const mostThreads = 24

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
  const threads = byPool(volumes).map(volume => threadOf(volume, { volumes, pools, groups }, states))
  const systemIds = new Set(Object.values(states).flatMap(({ systemId }) => systemId ?? []))
  const findings = (await standingFindings(scope, null)).filter(({ systemId }) => systemIds.has(systemId))
  return { threads, states, total: total?.total ?? 0, findings }
}

interface Around {
  readonly volumes: readonly VolumeRow[]
  readonly pools: Awaited<ReturnType<typeof allPools>>
  readonly groups: readonly GroupRow[]
}

/** What one volume serves and rests on. @param states of every part that has been met, by its key */
function threadOf(volume: VolumeRow, { volumes, pools, groups }: Around, states: Record<string, PartState>): Thread {
  const put = (part: Part, state: PartState) => {
    states[part.key] = state
    return part
  }
  const pool = pools.find(({ id }) => id === volume.pool_id)
  const application = volume.application ?? volume.groups?.[0]?.name
  const applicationPart = (name: string): Part => ({ key: `application/${name}`, stop: 'application', name })
  return {
    application:
      application === undefined ? [] : [put(applicationPart(application), applicationState(volumes, application))],
    hosts: [
      ...(volume.groups ?? []).map(group => {
        const part: Part = { key: `hosts/${group.id}`, stop: 'hosts', name: group.name }
        // Of a group that sees several volumes, the one that is reached worst counts.
        return states[part.key]?.gravity === 'now' ? part : put(part, groupSeeingState(group, volume.name))
      }),
      ...(volume.shares ?? []).map(share =>
        put({ key: `share/${share.id}`, stop: 'hosts', name: share.name }, shareState(share, volume.system_id)),
      ),
    ],
    volume: [put({ key: `volume/${volume.id}`, stop: 'volume', name: volume.name }, volumeState(volume))],
    pool: pool === undefined ? [] : [put({ key: `pool/${pool.id}`, stop: 'pool', name: pool.name }, poolState(pool))],
    drives: groups
      .filter(group => group.pool_id === volume.pool_id)
      .map(group => put(groupPart(group), groupState(group, volume.system_id))),
  }
}

const shownHosts = 3

function groupSeeingState({ id, hosts, cut }: GroupSeeing, volumeName: string): PartState {
  const place = { systemId: null, href: `/provision/hosts?hostGroupId=${id}` }
  if (cut.length > 0)
    return {
      ...{ gravity: 'now', ...place },
      words: `${cut.slice(0, shownHosts).join(', ')} ${cut.length === 1 ? 'reaches' : 'reach'} nothing of ${volumeName}`,
    }
  return { ...{ gravity: 'fine', ...place }, words: hosts.slice(0, shownHosts).join(', ') }
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
            when 'share' then exists (select from shares where volume_id = volumes.id and shares.id::text = $2 and shares.missing_since is null)
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
          (select coalesce(jsonb_agg(hosts.name order by hosts.name), '[]'::jsonb) from hosts where host_group_id = host_groups.id), 'cut',
          (select coalesce(jsonb_agg(hosts.name order by hosts.name), '[]'::jsonb) from hosts join host_paths on host_id = hosts.id
           where host_group_id = host_groups.id and host_paths.system_id = volumes.system_id and host_paths.naa = volumes.naa
             and paths <> '[]'::jsonb and not paths @> '[{"isUp": true}]'::jsonb)) order by host_groups.name)
        from mappings join host_groups on host_groups.id = host_group_id where volume_id = volumes.id) as groups,
       (select jsonb_agg(jsonb_build_object('id', shares.id, 'name', shares.name, 'warnPercent', warn_percent,
          'usedRatio', (used_bytes / nullif(size_bytes, 0))::float8, 'silent',
          (select count(*) from jsonb_array_elements(instances) i where i ->> 'standsOn' is null)) order by shares.name)
        from shares join file_services on file_services.id = file_service_id
        where shares.volume_id = volumes.id and shares.missing_since is null) as shares
     from chosen join volumes using (id) left join service_classes on service_classes.id = class_id
       left join metric_series on object_id = volumes.id and metric = 'latency'
     order by (case $1 when 'volume' then volumes.id::text = $2 when 'pool' then pool_id::text = $2
         when 'drives' then pool_id::text = split_part($2, ':', 1) when 'application' then application = $2
         when 'share' then exists (select from shares where volume_id = volumes.id and shares.id::text = $2) else false end) desc,
       recent_p95 * 1000 / latency_milliseconds desc nulls last, recent_p95 desc nulls last, written_bytes desc limit ${mostThreads}`,
    [stop ?? '', value],
  )
}

const groupRows = (scope: Scope, poolIds: readonly string[]): Promise<GroupRow[]> =>
  rows<GroupRow>(
    scope,
    `select pool_id, group_index, count(*)::int as drives, (count(*) filter (where state = 'failed'))::int as failed,
       (count(*) filter (where state = 'failing'))::int as failing,
       (count(*) filter (where state = 'fine' and (corrected_errors > 0 or lost_errors > 0) and exists (
         select from findings where key = 'drive-errors/' || drives.id and cleared_at is null)))::int as erring
     from drives where pool_id = any($1::uuid[]) and missing_since is null and role in ('data', 'cache')
     group by pool_id, group_index order by pool_id, group_index`,
    [poolIds],
  )
