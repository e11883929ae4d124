import type { Drive, Enclosure, Host, HostGroup, Node, Pool, Site, System } from '@/core/estate'
import { col, fn, literal } from 'sequelize'
import { row, type Scope } from '../database'
import { objects } from '../objects'

/** What is few in any estate, read whole. */
export const sites = (scope: Scope): Promise<Site[]> => objects(scope, 'sites')
export const systems = (scope: Scope): Promise<System[]> => objects(scope, 'systems')
export const pools = (scope: Scope): Promise<Pool[]> => objects(scope, 'pools')
export const hosts = (scope: Scope): Promise<Host[]> => objects(scope, 'hosts')
export const hostGroups = (scope: Scope): Promise<HostGroup[]> => objects(scope, 'hostGroups')
export const nodesOfAll = (scope: Scope): Promise<Node[]> => objects(scope, 'nodes')

/** By their systems' names, and within one as they are numbered there. */
export const enclosures = (scope: Scope): Promise<Enclosure[]> =>
  objects(scope, 'enclosures', {
    order: [
      [literal('(select name from systems where systems.id = system_id)'), 'ASC'],
      [fn('length', col('locator')), 'ASC'],
      ['locator', 'ASC'],
    ],
  })

const mostDrives = 20_000

/** Drives of one system, or of all, by enclosure and bay. */
export const drives = (scope: Scope, systemId: string | null): Promise<Drive[]> =>
  objects(scope, 'drives', { where: systemId === null ? {} : { systemId }, limit: mostDrives })

/** Healthy drives that no pool uses: how many, and their bytes. */
export async function unassigned(scope: Scope): Promise<{ readonly count: number; readonly bytes: bigint }> {
  const found = await row<{ readonly count: number; readonly bytes: string }>(
    scope,
    `select count(*)::int as count, coalesce(sum(capacity_bytes), 0)::text as bytes from drives where role = 'unassigned' and state <> 'failed' and missing_since is null`,
  )
  return { count: found?.count ?? 0, bytes: BigInt(found?.bytes ?? '0') }
}
