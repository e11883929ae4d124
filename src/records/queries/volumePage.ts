import type { Mapping } from '@/core/estate'
import type { VolumePage } from '@/core/views'
import { row, rows, type Scope } from '../database'
import {
  columns,
  toMapping,
  toPool,
  toSystem,
  toVolume,
  type PoolRow,
  type RowOf,
  type SystemRow,
  type VolumeRow,
} from '../estate'

const mostChanges = 20

/** One volume with its neighbours and the latest changes that touched it. */
export async function volumePage(scope: Scope, id: string): Promise<VolumePage | undefined> {
  const found = await row<VolumeRow & { readonly missing_since: Date | null }>(
    scope,
    `select ${columns.volumes}, missing_since from volumes where id = $1`,
    [id],
  )
  if (found === undefined) return undefined
  const { missing_since: missingSince, ...volume } = found
  const pool = await row<PoolRow>(scope, `select ${columns.pools} from pools where id = $1`, [volume.pool_id])
  const system = await row<SystemRow>(scope, `select ${columns.systems} from systems where id = $1`, [volume.system_id])
  if (pool === undefined || system === undefined) return undefined
  const mappings = await rows<RowOf<Mapping>>(
    scope,
    `select ${columns.mappings} from mappings where volume_id = $1 and missing_since is null order by group_name`,
    [id],
  )
  const ports = await rows<{ readonly name: string; readonly address: string }>(
    scope,
    'select target_name as name, address from ports where system_id = $1 and missing_since is null and address is not null and target_name is not null order by ports.name',
    [volume.system_id],
  )
  const changes = await rows<{ id: string; number: number; title: string; state: string; made_at: Date }>(
    scope,
    `select id, number, title, state, made_at from changes where intent ->> 'volumeId' = $1 or facts ->> 'volumeId' = $1 order by number desc limit $2`,
    [id, mostChanges],
  )
  return {
    volume: toVolume(volume),
    missingSince: missingSince?.toISOString() ?? null,
    pool: toPool(pool),
    system: toSystem(system),
    mappings: mappings.map(toMapping),
    targets: ports,
    changes: changes.map(each => ({
      id: each.id,
      number: each.number,
      title: each.title,
      state: each.state,
      at: each.made_at.toISOString(),
    })),
  }
}
