import { planIntent } from '@/changes'
import type { Plan } from '@/core/plan'
import { loadEstate, type Scope } from '@/records'
import { estateNow } from '@/records/inventory'

/** Plans an intent on the estate as the records have it now. @param ownChangeId whose claims do not count against it */
export async function planNow(scope: Scope, kind: string, intent: object, ownChangeId?: string): Promise<Plan> {
  return planIntent(kind, intent, needs => loadEstate(scope, needs, kind, ownChangeId), await estateNow(scope))
}
