import type { CountedDrive } from '@/core/findings'
import { rows, type Scope } from '../database'
import { dailyLast } from './read'

/** What is looked at: two weeks, and the level before them. */
const lookedBackDays = 16

interface DriveRow extends Omit<CountedDrive, 'corrected' | 'lost'> {
  readonly systemId: string
}

/**
 * Drives of which errors were ever counted, with their levels of the last weeks, by system: of most drives there is no series at all. A
 * system whose drives have been exchanged is there too, with none.
 */
export async function countedDrives(scope: Scope, now: Date): Promise<ReadonlyMap<string, readonly CountedDrive[]>> {
  const drives = await rows<DriveRow>(
    scope,
    `select drives.id, drives.system_id as "systemId", coalesce(enclosures.name || ', ', '') || 'bay ' || bay as name,
       drives.serial, systems.name as "systemName",
       pool_id as "poolId", pools.name as "poolName"
     from drives join systems on systems.id = drives.system_id left join pools on pools.id = pool_id
       left join enclosures on enclosures.id = enclosure_id
     where drives.missing_since is null and (corrected_errors > 0 or lost_errors > 0) order by drives.id`,
  )
  const told = await rows<{ readonly id: string }>(
    scope,
    `select distinct system_id as id from findings where source = 'drives' and cleared_at is null`,
  )
  const since = new Date(now.getTime() - lookedBackDays * 86_400_000)
  const ids = drives.map(({ id }) => id)
  const corrected = await dailyLast(scope, 'errors', ids, since)
  const lost = await dailyLast(scope, 'lost', ids, since)
  const bySystem = new Map<string, CountedDrive[]>(told.map(({ id }) => [id, []]))
  for (const { systemId, ...drive } of drives) {
    const own = bySystem.get(systemId) ?? []
    own.push({ ...drive, corrected: corrected.get(drive.id) ?? [], lost: lost.get(drive.id) ?? [] })
    bySystem.set(systemId, own)
  }
  return bySystem
}
