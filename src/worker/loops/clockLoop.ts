import { setTimeout as pause } from 'node:timers/promises'
import { noteClock, systemIds } from '@/records/inventory'
import type { World } from '../World'

const everyMilliseconds = 2000

/** Reads the clock of the first system that answers: all of an estate's systems keep one time, and Wendrel keeps it with them. */
export async function clockLoop(world: World): Promise<void> {
  const scope = { database: world.database }
  while (!world.stop.aborted) {
    for (const id of await systemIds(scope).catch(() => [])) {
      const isTold = await sample(world, id).catch(() => false) // the collector says why a system does not answer
      if (isTold) break
    }
    await pause(everyMilliseconds, undefined, { signal: world.stop }).catch(() => undefined)
  }
}

async function sample(world: World, systemId: string): Promise<boolean> {
  const system = await world.system(systemId)
  const asked = Date.now()
  const systemAt = await system.now()
  // The answer was written somewhere between asking and hearing: the middle errs least.
  await noteClock({ database: world.database }, systemId, new Date((asked + Date.now()) / 2), systemAt)
  return true
}
