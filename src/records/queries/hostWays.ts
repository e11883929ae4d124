import type { WaysSeen } from '@/core/views'
import { rows, type Scope } from '../database'

interface Row extends Omit<WaysSeen, 'disk' | 'ways' | 'since'> {
  readonly volume_id: string | null
  readonly volume_name: string | null
  readonly snapshot_id: string | null
  readonly snapshot_name: string | null
  readonly ways: WaysSeen['ways'] | null
  readonly since: Date
}

const mostDisks = 500

/** By which ways hosts see a disk, or one host sees its disks. */
export async function hostWays(
  scope: Scope,
  of: { readonly naa: string } | { readonly hostId: string },
): Promise<WaysSeen[]> {
  const [where, value] = 'naa' in of ? ['host_paths.naa = $1', of.naa] : ['host_paths.host_id = $1::uuid', of.hostId]
  const found = await rows<Row>(
    scope,
    `select hosts.id as "hostId", hosts.name as "hostName", hosts.host_group_id as "hostGroupId", host_paths.naa, host_paths.lun,
       systems.name as "systemName", since, volumes.id as volume_id, volumes.name as volume_name,
       snapshots.id as snapshot_id, snapshots.name as snapshot_name,
       (select jsonb_agg(jsonb_build_object('target', way ->> 'target', 'isUp', (way ->> 'isUp')::boolean, 'controller', controllers.name)
          order by way ->> 'target')
        from jsonb_array_elements(paths) as way
          left join ports on ports.system_id = host_paths.system_id and ports.target_name = way ->> 'target'
          left join controllers on controllers.id = ports.controller_id) as ways
     from host_paths join hosts on hosts.id = host_id join systems on systems.id = system_id
       left join volumes on volumes.naa = host_paths.naa and volumes.system_id = host_paths.system_id
       left join snapshots on snapshots.naa = host_paths.naa and snapshots.system_id = host_paths.system_id
     where ${where} order by hosts.name, systems.name, host_paths.lun limit ${mostDisks}`,
    [value],
  )
  return found.map(({ volume_id, volume_name, snapshot_id, snapshot_name, ways, since, ...rest }) => ({
    ...rest,
    ways: ways ?? [],
    since: since.toISOString(),
    disk: diskOf([volume_id, volume_name], true) ?? diskOf([snapshot_id, snapshot_name], false),
  }))
}

const diskOf = ([id, name]: readonly [string | null, string | null], isVolume: boolean) =>
  id === null || name === null ? null : { id, name, isVolume }
