import { setTimeout as pause } from 'node:timers/promises'
import { systemIds } from '@/records/inventory'
import { collectSystem } from '../collectSystem'
import type { World } from '../World'

const everyMilliseconds = 10_000
const settleMilliseconds = 400

/** Reads every system at intervals, and at once when it says that something has changed. One slow system holds up no other. */
export async function collectLoop(world: World, log: (line: string) => void): Promise<void> {
  const followed = new Map<string, Promise<void>>()
  while (!world.stop.aborted) {
    const ids = await systemIds({ database: world.database }).catch(() => undefined)
    for (const id of ids ?? []) {
      if (!followed.has(id))
        followed.set(
          id,
          follow(world, id, log).finally(() => followed.delete(id)),
        )
    }
    await pause(1000, undefined, { signal: world.stop }).catch(() => undefined)
  }
  await Promise.allSettled(followed.values())
}

async function follow(world: World, systemId: string, log: (line: string) => void): Promise<void> {
  let isWatched = false
  let bell = new AbortController()
  while (!world.stop.aborted) {
    try {
      await collectSystem(world, systemId)
      if (!isWatched) {
        isWatched = true
        const system = await world.system(systemId)
        void system
          .watch(() => bell.abort(), world.stop)
          .finally(() => (isWatched = false))
          .catch(() => undefined)
      }
    } catch (cause) {
      if (world.stop.aborted) return
      if ((cause as { code?: unknown }).code === 'worker.system-gone') return
      log(`collecting: ${cause instanceof Error ? cause.message : String(cause)}`)
    }
    const woken = await pause(everyMilliseconds, false, { signal: AbortSignal.any([world.stop, bell.signal]) }).catch(
      () => true,
    )
    bell = new AbortController()
    // Events come in bursts: wait until the burst is over, so that one reading serves it.
    if (woken) await pause(settleMilliseconds, undefined, { signal: world.stop }).catch(() => undefined)
  }
}
