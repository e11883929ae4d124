import { carryOut, dropDraft, makeDraft, planNow, wendrel } from '@/drafting'
import { estateNow } from '@/records/inventory'
import { WendrelError } from '@/core/errors'
import { heldVolumesPast, leftDraft, queue, readyIds } from '@/records/changes'
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

const kind = 'delete-held-volume'

/**
 * Deletes volumes whose holding has ended. One that cannot be deleted now holds up no other and writes nothing; one whose deletion has
 * failed is tried again after an hour. A draft that a process left when it died is carried out by the next.
 */
export async function deleteHeld(world: World, told: (cause: unknown) => void): Promise<void> {
  const scope = { database: world.database }
  for (const { id } of await heldVolumesPast(scope, await estateNow(scope), mostAtOnce)) {
    const intent = { volumeId: id }
    if ((await planNow(scope, kind, intent)).checks.some(check => check.level === 'must' && !check.holds)) continue
    const draft = (await leftDraft(scope, kind, wendrel.name, [id])) ?? (await makeDraft(scope, kind, intent, wendrel))
    try {
      await carryOut(world.database, draft.id, draft.planDigest, wendrel)
    } catch (cause) {
      if (!(cause instanceof WendrelError)) throw cause
      told(cause)
      // Another worker may have carried the same draft out in this moment.
      await dropDraft(scope, draft.id, wendrel).catch(told)
    }
  }
}
