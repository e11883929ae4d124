import type { Member } from './membership'

/** What would be otherwise: somebody in one more group, or no longer in one of those that they are in themselves. */
export interface Supposition {
  readonly what: 'in' | 'not in'
  /** The durable id of the group. */
  readonly groupId: string
}

/** Somebody as they would be. Groups that they are in through others stay: those are left by leaving the others. */
export const suppose = <M extends Member>(somebody: M, { what, groupId }: Supposition): M => ({
  ...somebody,
  memberOf:
    what === 'in' ? [...new Set([...somebody.memberOf, groupId])] : somebody.memberOf.filter(each => each !== groupId),
})
