import type { Estate, EstateNeeds } from '@/core/estate'
import type { Plan } from '@/core/plan'
import { kindNamed } from './register'

/**
 * Plans an intent on the slice of the estate that its kind reads.
 * @param intent has passed `readIntent`, now or before it was stored
 * @param load reads the slice from the records
 */
export async function planIntent(
  kindName: string,
  intent: object,
  load: (needs: EstateNeeds) => Promise<Estate>,
  now: Date,
): Promise<Plan> {
  const kind = kindNamed(kindName)
  const needs = kind.needs(intent)
  const estate = await load(needs)
  const also = kind.needsAlso?.(estate, intent)
  return kind.plan(also === undefined ? estate : await load([...needs, ...also]), intent, now)
}
