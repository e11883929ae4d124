import type { Asked } from '@/core/classes'
import { byId, type Estate } from '@/core/estate'

/** What of the estate bears on where something is placed. @param hostGroupIds those who are to see it */
export function around(
  estate: Estate,
  hostGroupIds: readonly (string | null | undefined)[],
): Pick<Asked, 'answering' | 'trends' | 'sites'> {
  const groups = new Set(hostGroupIds.flatMap(id => byId(estate.hostGroups, id ?? undefined)?.id ?? []))
  return {
    answering: new Set(estate.systems.filter(({ reach }) => reach === 'answering').map(({ id }) => id)),
    trends: new Map(estate.poolTrends.map(each => [each.poolId, each])),
    sites: {
      ofSystems: new Map(estate.systems.map(({ id, siteId }) => [id, siteId])),
      ofHosts: estate.hosts.filter(each => groups.has(each.hostGroupId)).map(({ siteId }) => siteId),
    },
  }
}

/** The group that is to see what is made: the one that is chosen, else the one that its class names. */
export const seenBy = (
  estate: Estate,
  { hostGroupId, classId }: { readonly hostGroupId: string; readonly classId?: string },
): string => (hostGroupId === '' ? (byId(estate.serviceClasses, classId)?.defaultGroupId ?? '') : hostGroupId)
