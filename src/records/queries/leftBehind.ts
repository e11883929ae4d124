import type { LeftBehind, LeftDays, LeftLine, LeftList, LeftWhy } from '@/core/views'
import { rows, type Scope } from '../database'

/** Of each list the largest are shown; how many there are and what they take is told of all. */
const shownLines = 40

/** Volumes that some host sees, they or a snapshot of theirs, or whose files are shared; and those from which others are made. */
const sets = `
  seen as materialized (
    select volume_id as id from mappings where missing_since is null
    union select snapshots.volume_id from mappings join snapshots on snapshots.id = snapshot_id where mappings.missing_since is null
    union select volume_id from file_systems where missing_since is null and share_count > 0
  ),
  needed as materialized (
    select id from volumes where is_image
    union select snapshots.volume_id from volumes as clones join snapshots on snapshots.id = clones.clone_of_id where clones.missing_since is null
  )`
/** Of those that nobody sees any more: since when. */
const gone =
  'gone as (select volume_id as id, max(missing_since) as since from mappings where missing_since is not null group by volume_id)'
const isSeen = 'exists (select from seen where seen.id = volumes.id)'
const isNeeded = 'exists (select from needed where needed.id = volumes.id)'
const inUse = `volumes.missing_since is null and volumes.state = 'in use'`
const ofVolume = `volumes.id, volumes.id as volume_id, volumes.name, null as snapshot_name, volumes.pool_id`

/** Each list: what is in it since when, and what would come back. $1 is the instant before which it has to have begun. */
const lists: Readonly<Record<LeftWhy, string>> = {
  unseen: `
    select ${ofVolume}, volumes.written_bytes as bytes,
      greatest(gone.since, nullif(asked.active_at, '-infinity')) as since
    from volumes left join gone on gone.id = volumes.id left join metric_series as asked on asked.object_id = volumes.id and asked.metric = 'requests'
    where ${inUse} and volumes.written_bytes > 0 and coalesce(asked.recent_mean, 0) = 0 and not ${isSeen} and not ${isNeeded}`,
  idle: `
    select ${ofVolume}, volumes.written_bytes as bytes, nullif(asked.active_at, '-infinity') as since
    from volumes join metric_series as asked on asked.object_id = volumes.id and asked.metric = 'requests'
    where ${inUse} and ${isSeen} and not ${isNeeded} and asked.recent_mean = 0 and asked.active_at < $1
      and (asked.active_at > '-infinity' or (select true from metric_packs where series_id = asked.id and starts_at < $1 limit 1))`,
  'not growing': `
    select ${ofVolume}, volumes.size_bytes - volumes.written_bytes as bytes, written.past_at as since
    from volumes join metric_series as written on written.object_id = volumes.id and written.metric = 'written'
    where ${inUse} and not volumes.is_thin and volumes.size_bytes > volumes.written_bytes
      and written.past_at < $1 and volumes.written_bytes <= written.past_value`,
  'without a rule': `
    select snapshots.id, volumes.id as volume_id, volumes.name, snapshots.name as snapshot_name, volumes.pool_id, snapshots.own_bytes as bytes,
      snapshots.taken_at as since
    from snapshots join volumes on volumes.id = snapshots.volume_id left join service_classes on service_classes.id = volumes.class_id
    where snapshots.missing_since is null and snapshots.state = 'consistent' and snapshots.taken_at < $1
      and snapshots.goes_at is null and snapshots.held_reason is null
      and (snapshots.due_at is null or (volumes.own_schedule is null and service_classes.snapshot_rule is null))
      and not exists (select from volumes as clones where clones.clone_of_id = snapshots.id and clones.missing_since is null)
      and not exists (select from mappings where mappings.snapshot_id = snapshots.id and mappings.missing_since is null)`,
}

interface LeftRow {
  readonly id: string
  readonly volume_id: string
  readonly name: string
  readonly snapshot_name: string | null
  readonly pool_name: string
  readonly since: Date | null
  readonly bytes: number
  readonly count: number
  readonly whole: number
}

/** What takes space and serves nobody, as far as can be seen; the largest of each first. */
export async function leftBehind(scope: Scope, days: LeftDays, now: Date): Promise<LeftBehind> {
  const before = new Date(now.getTime() - days * 86_400_000).toISOString()
  const found: LeftList[] = []
  for (const why of Object.keys(lists) as LeftWhy[]) found.push(await listOf(scope, why, before))
  return { days, lists: found }
}

async function listOf(scope: Scope, why: LeftWhy, before: string): Promise<LeftList> {
  const found = await rows<LeftRow>(
    scope,
    `with ${sets}, ${gone}, found as materialized (${lists[why]}), whole as (select count(*)::int as count, coalesce(sum(bytes), 0)::float8 as whole from found),
       largest as (select * from found order by bytes desc, name, id limit ${shownLines})
     select largest.id, volume_id, largest.name, snapshot_name, pools.name as pool_name, since, bytes::float8 as bytes, count, whole
     from whole cross join largest join pools on pools.id = largest.pool_id
     order by largest.bytes desc, largest.name, largest.id`,
    lists[why].includes('$1') ? [before] : [],
  )
  return { why, count: found[0]?.count ?? 0, bytes: found[0]?.whole ?? 0, lines: found.map(toLine) }
}

const toLine = ({ id, volume_id, name, snapshot_name, pool_name, since, bytes }: LeftRow): LeftLine => ({
  ...{ id, volumeId: volume_id, name, snapshotName: snapshot_name, poolName: pool_name, bytes },
  since: since?.toISOString() ?? null,
})
