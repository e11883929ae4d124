import { signedIn, type SignedIn } from '@/core/access'
import { byId, type Estate, type Principal } from '@/core/estate'
import { groupsIn } from './smbTrials'

interface AskedAs {
  readonly personId?: string
  readonly uid: number
  readonly gid: number
  readonly groups: readonly number[]
}

/** As whom something is done on a host: a person of a directory, or numbers. */
export function triedAs(
  estate: Estate,
  { personId, uid, gid, groups }: AskedAs,
): { readonly person: Principal | undefined; readonly is: SignedIn } {
  const person = byId(estate.principals, personId)
  const is = person === undefined ? undefined : signedIn(person, groupsIn(estate))
  return { person, is: is ?? { uid, gid, groups, durableId: '', groupIds: [], isDisabled: false } }
}
