import { setTimeout as pause } from 'node:timers/promises'
import { carryOut, estateNow, makeDraft } from '@/drafting'
import { heldVolumesPast, queue, runningIds } from '@/records/changes'
import { isHeld } from '../carryOut/holdChange'
import type { World } from '../World'

const everyMilliseconds = 3000
const mostAtOnce = 20

/**
 * Takes up changes whose process has died: running by the records, in nobody's hands. The queue would wait for hours before
 * it believes a worker dead; the hold tells at once. Also deletes volumes whose holding has ended.
 */
export async function watchOverChanges(world: World, log: (line: string) => void): Promise<void> {
  const scope = { database: world.database }
  while (!world.stop.aborted) {
    try {
      for (const id of await runningIds(scope)) {
        if (!(await isHeld(world.url, id))) await queue(scope, id)
      }
      for (const { id } of await heldVolumesPast(scope, await estateNow(scope), mostAtOnce)) {
        const draft = await makeDraft(scope, 'delete-held-volume', { volumeId: id }, 'Wendrel')
        await carryOut(world.database, draft.id)
      }
    } catch (cause) {
      if (!world.stop.aborted) log(`watching over changes: ${cause instanceof Error ? cause.message : String(cause)}`)
    }
    await pause(everyMilliseconds, undefined, { signal: world.stop }).catch(() => undefined)
  }
}
