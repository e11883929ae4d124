import { nobodyId, type SignedIn } from '../files/shareGrants'
import { groupsAbove, type Member } from './membership'

/** Somebody, or a group, as a directory has them. */
export interface Known extends Member {
  /** uid of a person, gid of a group; null where the directory gives none. */
  readonly number: number | null
  readonly primaryGid: number | null
  readonly isDisabled: boolean
}

/** Somebody as a file server takes them after they have signed in: their own number, and those of all groups that they are in. */
export function signedIn(somebody: Known, groups: ReadonlyMap<string, Known>): SignedIn {
  const above = groupsAbove(somebody, groups)
  return {
    durableId: somebody.durableId,
    uid: somebody.number ?? nobodyId,
    gid: somebody.primaryGid ?? nobodyId,
    groups: above.flatMap(({ number }) => (number === null ? [] : [number])),
    groupIds: above.map(({ durableId }) => durableId),
    isDisabled: somebody.isDisabled,
  }
}
