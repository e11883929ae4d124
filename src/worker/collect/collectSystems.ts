import { isOurs } from '../carryOut/patience'
import type { World } from '../World'
import { collectSystem } from './collectSystem'

/** Reads systems anew that a change has touched. One that does not answer now is read later, in its turn. */
export async function collectSystems(world: World, systemIds: readonly string[]): Promise<void> {
  for (const systemId of systemIds) {
    await collectSystem(world, systemId).catch((cause: unknown) => {
      if (isOurs(cause)) throw cause
    })
  }
}
