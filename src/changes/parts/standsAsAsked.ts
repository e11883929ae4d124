import isEqual from 'fast-deep-equal'
import type { Evidence } from '../ChangeKind'

/** That a record has every field as it was asked for; fields that differ are named. */
export function standsAsAsked(claim: string, found: { readonly name: string } | undefined, asked: object): Evidence {
  const kept = found as Readonly<Record<string, unknown>> | undefined
  const differs =
    kept === undefined
      ? ['all']
      : Object.entries(asked)
          .filter(([field, value]) => !isEqual(kept[field], value))
          .map(([field]) => field)
  return {
    claim,
    holds: differs.length === 0,
    measured: { name: found?.name ?? 'nothing', differs: differs.join(', ') || 'nothing' },
  }
}
