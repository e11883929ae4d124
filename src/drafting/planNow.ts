import { planIntent } from '@/changes'
import { estateTime } from '@/core/clock'
import type { Plan } from '@/core/plan'
import { loadEstate, type Scope } from '@/records'
import { estateClock } from '@/records/inventory'

/** The estate's time now. */
export const estateNow = async (scope: Scope) => estateTime(await estateClock(scope), new Date())

/** Plans an intent on the estate as the records have it now. @param ownChangeId whose claims do not count against it */
export async function planNow(scope: Scope, kind: string, intent: object, ownChangeId?: string): Promise<Plan> {
  return planIntent(kind, intent, needs => loadEstate(scope, needs, kind, ownChangeId), await estateNow(scope))
}
