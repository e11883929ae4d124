import { changeById } from '@/records/changes'
import type { World } from '../World'
import { holdChange } from './holdChange'
import { Run } from './Run'

/**
 * Carries out a running change from wherever its journal says it stands, until it ends or has to wait. Safe to call at any time and from
 * any number of processes: one that does not get hold of the change leaves it alone.
 */
export async function runChange(world: World, changeId: string): Promise<void> {
  const hold = await holdChange(world.url, changeId)
  if (hold === undefined) return
  try {
    const change = await changeById({ database: world.database }, changeId)
    if (change?.state === 'running') await new Run(world, change, hold.lost).go()
  } finally {
    await hold.release()
  }
}
