import { everybody, type ShareGrant } from '@/core/access'
import { having, those, type EstateNeeds } from '@/core/estate'

/** Those whom grants are for, their members, and every group: what it takes to say who may do what. */
export function whoIsGranted(grants: readonly ShareGrant[] = []): EstateNeeds {
  const ids = grants.map(({ who }) => who).filter(who => who !== everybody)
  return ids.length === 0
    ? []
    : [
        those('principals', 'durableId', ...ids),
        having('principals', 'memberOf', ...ids),
        those('principals', 'sort', 'group'),
      ]
}
