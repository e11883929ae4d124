import type { Drive, Enclosure, Host, HostGroup, Node, Pool, Site, System } from '@/core/estate'
import { col, fn, literal } from 'sequelize'
import { row, rows, type Scope } from '../database'
import { remembered } from '../memory'
import { objects } from '../objects'

const all = <Name extends 'sites' | 'systems' | 'pools' | 'hosts' | 'hostGroups' | 'nodes'>(scope: Scope, name: Name) =>
  remembered(scope, name, () => objects(scope, name))

/** What is few in any estate, read whole. */
export const sites = (scope: Scope): Promise<Site[]> => all(scope, 'sites')
export const systems = (scope: Scope): Promise<System[]> => all(scope, 'systems')
export const pools = (scope: Scope): Promise<Pool[]> => all(scope, 'pools')
export const hosts = (scope: Scope): Promise<Host[]> => all(scope, 'hosts')
export const hostGroups = (scope: Scope): Promise<HostGroup[]> => all(scope, 'hostGroups')
export const nodesOfAll = (scope: Scope): Promise<Node[]> => all(scope, 'nodes')

const mostApplications = 500

/** What volumes serve, each once, by name. */
export const applications = (scope: Scope): Promise<string[]> =>
  remembered(scope, 'applications', async () => {
    const found = await rows<{ readonly application: string }>(
      scope,
      `select distinct application from volumes where application is not null order by 1 limit ${mostApplications}`,
    )
    return found.map(({ application }) => application)
  })

/** By their systems' names, and within one as they are numbered there. */
export const enclosures = (scope: Scope): Promise<Enclosure[]> =>
  remembered(scope, 'enclosures', () =>
    objects(scope, 'enclosures', {
      order: [
        [literal('(select name from systems where systems.id = system_id)'), 'ASC'],
        [fn('length', col('locator')), 'ASC'],
        ['locator', 'ASC'],
      ],
    }),
  )

const mostDrives = 20_000

/** Drives of one system, or of all, by enclosure and bay. */
export const drives = (scope: Scope, systemId: string | null): Promise<Drive[]> =>
  remembered(scope, `drives ${systemId}`, () =>
    objects(scope, 'drives', { where: systemId === null ? {} : { systemId }, limit: mostDrives }),
  )

/** Healthy drives that no pool uses: how many, and their bytes. */
export async function unassigned(scope: Scope): Promise<{
  /** Bytes of all drives in no pool, whatever is on them. */
  readonly bytes: bigint
  /** Of these, what a pool could take at once: as the list of drives says, neither boot drives nor what an earlier use has left. */
  readonly freeCount: number
  readonly freeBytes: bigint
}> {
  const isFree = `state = 'fine' and not is_boot and coalesce(left_over, 'null'::jsonb) = 'null'::jsonb`
  const found = await row<{ readonly bytes: string; readonly free_count: number; readonly free_bytes: string }>(
    scope,
    `select coalesce(sum(capacity_bytes), 0)::text as bytes, count(*) filter (where ${isFree})::int as free_count,
       coalesce(sum(capacity_bytes) filter (where ${isFree}), 0)::text as free_bytes
     from drives where role = 'unassigned' and state <> 'failed' and missing_since is null`,
  )
  return {
    bytes: BigInt(found?.bytes ?? '0'),
    freeCount: found?.free_count ?? 0,
    freeBytes: BigInt(found?.free_bytes ?? '0'),
  }
}
