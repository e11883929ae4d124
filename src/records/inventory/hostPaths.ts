import type { HostDevice } from '@/ports'
import { rows, run, toJson, type Scope } from '../database'
import { estateNow } from './clock'

export interface HostPath {
  /** The name of the target at which the way ends. */
  readonly target: string
  readonly isUp: boolean
}

/** Keeps by which ways a host sees the disks of a system. What is as it was is not written. */
export async function keepHostPaths(
  scope: Scope,
  hostId: string,
  systemId: string,
  devices: readonly HostDevice[],
): Promise<void> {
  const now = (await estateNow(scope)).toISOString()
  const seen = devices.map(({ naa, lun, paths = [] }) => ({ naa, lun, paths }))
  await run(
    scope,
    `with seen as (select * from jsonb_to_recordset($3::jsonb) as s(naa text, lun int, paths jsonb)),
       gone as (delete from host_paths where host_id = $1 and system_id = $2 and naa not in (select naa from seen))
     insert into host_paths (host_id, system_id, naa, lun, paths, since)
     select $1, $2, naa, lun, paths, $4 from seen
       where not exists (select from host_paths as kept where host_id = $1 and system_id = $2 and kept.naa = seen.naa
         and kept.lun = seen.lun and kept.paths = seen.paths)
     on conflict (host_id, system_id, naa) do update set lun = excluded.lun, paths = excluded.paths, since = excluded.since`,
    [hostId, systemId, toJson(seen), now],
  )
}

/** By which ways a host saw the disks of a system when it was heard last. */
export const keptHostPaths = (
  scope: Scope,
  hostId: string,
  systemId: string,
): Promise<readonly { readonly naa: string; readonly paths: readonly HostPath[] }[]> =>
  rows(scope, 'select naa, paths from host_paths where host_id = $1 and system_id = $2 order by naa', [
    hostId,
    systemId,
  ])

/** Lets go the ways of hosts to which a system shows nothing any more. */
export const keepPathsOf = (scope: Scope, systemId: string, hostIds: readonly string[]): Promise<unknown> =>
  run(scope, 'delete from host_paths where system_id = $1 and not host_id = any($2::uuid[])', [systemId, hostIds])

/** Hosts with an agent that are shown something by a system. */
export async function hostsToLookAt(
  scope: Scope,
  systemId: string,
): Promise<readonly { readonly id: string; readonly name: string; readonly agentAddress: string }[]> {
  return rows(
    scope,
    `select id, name, agent_address as "agentAddress" from hosts where agent_address is not null
       and host_group_id in (select host_group_id from mappings where system_id = $1 and missing_since is null)
     order by name`,
    [systemId],
  )
}

/** What a system shows, by the names of some disks. */
export async function disksNamed(
  scope: Scope,
  systemId: string,
  naas: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const found = await rows<{ readonly naa: string; readonly name: string }>(
    scope,
    `select naa, name from volumes where system_id = $1 and naa = any($2::text[])
     union all select naa, name from snapshots where system_id = $1 and naa = any($2::text[])`,
    [systemId, naas],
  )
  return new Map(found.map(each => [each.naa, each.name]))
}

/** The controller at which each target of a system stands. */
export async function controllersByTarget(scope: Scope, systemId: string): Promise<ReadonlyMap<string, string>> {
  const found = await rows<{ readonly target: string; readonly name: string }>(
    scope,
    `select target_name as target, controllers.name from ports join controllers on controllers.id = controller_id
     where ports.system_id = $1 and target_name is not null`,
    [systemId],
  )
  return new Map(found.map(({ target, name }) => [target, name]))
}
