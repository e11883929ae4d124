import { judgeFile } from './accessList'
import type { FileIdentity, FileOperation, FileOwner, ModeClass } from './modeBits'

/** What a grant lets somebody do with all of a share; `none` refuses, whatever else is granted. */
export type GrantedRight = 'none' | 'read' | 'change' | 'full'

/** Whoever signs in. */
export const everybody = '*'

/** Who may do what with a share over SMB. */
export interface ShareGrant {
  /** The durable id of a person or a group, or `*`. */
  readonly who: string
  /** As it was called when it was granted, so that it can still be told of when its directory no longer has it. */
  readonly name: string
  readonly right: GrantedRight
}

/** What grants stand for a share: its own, and behind them those of its whole file service. */
export interface StandingGrants {
  readonly grants: readonly ShareGrant[]
  readonly serviceGrants?: readonly ShareGrant[]
}

/** All that count for a share, its own first. */
export const allGrants = ({ grants, serviceGrants = [] }: StandingGrants): readonly ShareGrant[] =>
  serviceGrants.length === 0 ? grants : [...grants, ...serviceGrants]

/** Somebody who has signed in, as the directory knows them. */
export interface SignedIn extends FileIdentity {
  readonly durableId: string
  /** The durable ids of all groups, also of those by way of others. */
  readonly groupIds: readonly string[]
  readonly isDisabled: boolean
}

/** Somebody's own number to files where a directory gives none. */
export const nobodyId = 65_534

export interface GrantAnswer {
  readonly allowed: boolean
  /** The first gate that denies; the last where all allow. */
  readonly decidedBy: 'authentication' | 'share-grant' | 'mode-bits' | 'acl'
  /** Of the grant that decided; null where there is none for them. */
  readonly grantIndex: number | null
  readonly modeClass?: ModeClass
  /** Of the entry of the access list that decided; null where none is for them, absent where none counts. */
  readonly entryIndex?: number | null
}

const letsDo = (right: GrantedRight, operation: FileOperation) =>
  right === 'change' || right === 'full' || (right === 'read' && operation === 'read')
const rank: Readonly<Record<GrantedRight, number>> = { none: 4, full: 3, change: 2, read: 1 }

/**
 * The grant that decides for somebody: one that refuses before all others, else the widest of those for them and for any of their groups;
 * of equals the first. Source: the order in which access control entries are evaluated, refusals first (RFC 8881, 6.2.1).
 */
export function decidingGrant(grants: readonly ShareGrant[], { durableId, groupIds }: SignedIn): number | undefined {
  const own = new Set([everybody, durableId, ...groupIds])
  let best: number | undefined
  grants.forEach(({ who, right }, index) => {
    const before = best === undefined ? 0 : rank[grants[best]?.right ?? 'read']
    if (own.has(who) && rank[right] > before) best = index
  })
  return best
}

/** Whether somebody may read or write a file of a share over SMB: sign-in, then share grant, then access list or mode bits; the first that denies decides. */
export function mayBySmb(
  grants: readonly ShareGrant[],
  somebody: SignedIn,
  operation: FileOperation,
  file: FileOwner,
): GrantAnswer {
  const index = decidingGrant(grants, somebody)
  const grantIndex = index ?? null
  if (somebody.isDisabled) return { allowed: false, decidedBy: 'authentication', grantIndex }
  const right = index === undefined ? undefined : grants[index]?.right
  if (right === undefined || !letsDo(right, operation)) return { allowed: false, decidedBy: 'share-grant', grantIndex }
  return { ...judgeFile(file, somebody, operation), grantIndex }
}
