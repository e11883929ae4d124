import { carryOut, dropDraft, makeDraft, wendrel } from '@/drafting'
import { estateNow } from '@/records/inventory'
import { WendrelError } from '@/core/errors'
import { heldVolumesPast, queue, readyIds } from '@/records/changes'
import { isHeld } from '../carryOut/holdChange'
import type { World } from '../World'

const mostAtOnce = 20

/**
 * Takes up changes whose process has died, and those whose wait is over: running by the records, in nobody's hands. The queue would wait
 * for hours before it believes a worker dead; the hold tells at once.
 */
export async function takeUpChanges(world: World): Promise<void> {
  const scope = { database: world.database }
  for (const id of await readyIds(scope)) if (!(await isHeld(world.url, id))) await queue(scope, id)
}

/** Deletes volumes whose holding has ended. One that cannot be deleted holds up no other, and is tried again after an hour. */
export async function deleteHeld(world: World, told: (cause: unknown) => void): Promise<void> {
  const scope = { database: world.database }
  for (const { id } of await heldVolumesPast(scope, await estateNow(scope), mostAtOnce)) {
    const draft = await makeDraft(scope, 'delete-held-volume', { volumeId: id }, wendrel)
    try {
      await carryOut(world.database, draft.id, draft.planDigest, wendrel)
    } catch (cause) {
      if (!(cause instanceof WendrelError)) throw cause
      told(cause)
      await dropDraft(scope, draft.id, wendrel)
    }
  }
}
