import type { Drive, Enclosure, Host, HostGroup, Node, Pool, Site, System } from '@/core/estate'
import { rows, type Scope } from '../database'
import {
  columns,
  toDrive,
  toEnclosure,
  toHost,
  toHostGroup,
  toNode,
  toPool,
  toSite,
  toSystem,
  type DriveRow,
  type HostRow,
  type PoolRow,
  type RowOf,
  type SystemRow,
} from '../estate'

/** What is few in any estate, read whole. */
export const sites = async (scope: Scope): Promise<Site[]> =>
  (await rows<RowOf<Site>>(scope, 'select id, name, revision from sites order by name')).map(toSite)
export const systems = async (scope: Scope): Promise<System[]> =>
  (await rows<SystemRow>(scope, `select ${columns.systems} from systems order by name`)).map(toSystem)
export const pools = async (scope: Scope): Promise<Pool[]> =>
  (await rows<PoolRow>(scope, `select ${columns.pools} from pools where missing_since is null order by name, id`)).map(
    toPool,
  )
export const hosts = async (scope: Scope): Promise<Host[]> =>
  (await rows<HostRow>(scope, `select ${columns.hosts} from hosts order by name`)).map(toHost)
export const hostGroups = async (scope: Scope): Promise<HostGroup[]> =>
  (await rows<RowOf<HostGroup>>(scope, 'select id, name, revision from host_groups order by name')).map(toHostGroup)

export const enclosures = async (scope: Scope): Promise<Enclosure[]> =>
  (
    await rows<RowOf<Enclosure>>(
      scope,
      `select ${columns.enclosures} from enclosures where missing_since is null order by (select name from systems where systems.id = system_id), length(locator), locator`,
    )
  ).map(toEnclosure)
export const nodesOfAll = async (scope: Scope): Promise<Node[]> =>
  (await rows<RowOf<Node>>(scope, `select ${columns.nodes} from nodes where missing_since is null order by name`)).map(
    toNode,
  )

/** Drives of one system, or of all, by enclosure and bay. */
export async function drives(scope: Scope, systemId: string | null): Promise<Drive[]> {
  const found = await rows<DriveRow>(
    scope,
    `select ${columns.drives} from drives where ($1::uuid is null or system_id = $1) and missing_since is null order by system_id, enclosure_id, bay limit 20000`,
    [systemId],
  )
  return found.map(toDrive)
}

/** Healthy drives that no pool uses: how many, and their bytes. */
export async function unassigned(scope: Scope): Promise<{ readonly count: number; readonly bytes: bigint }> {
  const [found] = await rows<{ readonly count: number; readonly bytes: string }>(
    scope,
    `select count(*)::int as count, coalesce(sum(capacity_bytes), 0)::text as bytes from drives where role = 'unassigned' and state <> 'failed' and missing_since is null`,
  )
  return { count: found?.count ?? 0, bytes: BigInt(found?.bytes ?? '0') }
}
