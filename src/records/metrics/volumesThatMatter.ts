import { rows, type Scope } from '../database'

const mostGrowers = 6

/** A volume that matters to its pool, and why. */
export interface VolumeFound {
  readonly list: 'growing' | 'held' | 'unseen' | 'removed'
  readonly id: string
  /** Bytes a day. */
  readonly growth: number
  /** Held by its snapshots beside it (bytes). */
  readonly held: number
}

/**
 * Of a pool's volumes those that matter: the fastest, that whose snapshots hold most, the largest that no host sees, and the largest in
 * holding. It looks at all of them, so it is made with the forecast, not for each reader.
 */
export const volumesThatMatter = (scope: Scope, poolId: string, now: Date): Promise<VolumeFound[]> =>
  rows<VolumeFound>(
    scope,
    `with own as materialized (
       select volumes.id, state = 'holding' as is_held, written_bytes::float8 as written,
         case when past_at < $2::timestamptz - interval '1 day'
           then (written_bytes::float8 - past_value) / extract(epoch from $2::timestamptz - past_at)::float8 * 86400 else 0 end as growth
       from volumes left join metric_series on object_id = volumes.id and metric = 'written'
       where pool_id = $1 and volumes.missing_since is null
     ), held as (
       select volume_id as id, sum(own_bytes)::float8 as held from snapshots
       where missing_since is null and volume_id in (select id from own) group by volume_id
     ), chosen as (
       (select 'growing' as list, * from own where not is_held order by growth desc, written desc, id limit ${mostGrowers})
       union all (select 'held', own.* from held join own using (id) order by held desc, id limit 1)
       union all (select 'unseen', * from own where not is_held and written > 0
         and not exists (select from mappings where volume_id = own.id and missing_since is null) order by written desc, id limit 1)
       union all (select 'removed', * from own where is_held and written > 0 order by written desc, id limit 1)
     )
     select list, id, growth, coalesce(held, 0) as held from chosen left join held using (id)`,
    [poolId, now.toISOString()],
  )
