import { entryWords, whoWords, withEntry, withoutEntry } from './accessList'
import { type AccessEntry, withBit, type FileOperation, type FileOwner, type ModeClass } from './modeBits'
import {
  allGrants,
  decidingGrant,
  everybody,
  mayBySmb,
  type GrantAnswer,
  type StandingGrants,
  type GrantedRight,
  type ShareGrant,
  type SignedIn,
} from './shareGrants'
import { groupsThatMay } from './turning'

/** What decides of a share over SMB: its grants and those of its service, and its root directory. */
export interface SmbRights extends StandingGrants {
  readonly root: FileOwner
}

interface Served extends StandingGrants {
  readonly ownerUid: number
  readonly ownerGid: number
  readonly mode: string
  readonly acl?: readonly AccessEntry[]
}
/** What decides of a share, from its fields. */
export const smbRightsOf = ({ grants, serviceGrants = [], ownerUid, ownerGid, mode, acl = [] }: Served): SmbRights => ({
  grants,
  serviceGrants,
  root: { uid: ownerUid, gid: ownerGid, mode, acl },
})

export type SmbEdit =
  | { readonly of: 'new-grant'; readonly who: string; readonly name: string; readonly right: GrantedRight }
  | { readonly of: 'grant'; readonly index: number; readonly right: GrantedRight }
  | { readonly of: 'grant-gone'; readonly index: number }
  | { readonly of: 'smb-mode'; readonly modeClass: Exclude<ModeClass, 'superuser'>; readonly mode: string }
  | { readonly of: 'smb-entry'; readonly entry: AccessEntry }
  | { readonly of: 'smb-entry-gone'; readonly index: number }
  | { readonly of: 'smb-member'; readonly gid: number }

export interface SmbTurning {
  readonly edits: readonly SmbEdit[]
  readonly rights: SmbRights
}

interface State {
  readonly rights: SmbRights
  readonly somebody: SignedIn
  readonly edits: readonly SmbEdit[]
}

/** Refusals that stand behind each other; of more than that nobody would keep count. */
const mostRefusals = 5
const mostWays = 6

const judge = ({ rights, somebody }: State, operation: FileOperation): GrantAnswer =>
  mayBySmb(allGrants(rights), somebody, operation, rights.root)

/**
 * The smallest changes that would turn an answer over SMB, found by search over what the deciding gate lets be changed; among as many
 * edits those first that touch fewest people. Each has been tried. Nothing turns the answer for whom the directory lets not sign in, and
 * nothing at the share what its whole service refuses.
 * @param account as it would be called in a grant of its own
 */
export function smbTurnings(
  rights: SmbRights,
  somebody: SignedIn,
  operation: FileOperation,
  account: string,
): SmbTurning[] {
  const wanted = !judge({ rights, somebody, edits: [] }, operation).allowed
  let open: State[] = [{ rights, somebody, edits: [] }]
  const own = new Set([everybody, somebody.durableId, ...somebody.groupIds])
  const refusals = rights.grants.filter(({ who, right }) => right === 'none' && own.has(who)).length
  // Each refusal is an edit; a grant and a mode may come after them.
  const mostEdits = Math.min(refusals, mostRefusals) + 2
  for (let depth = 0; depth < mostEdits && open.length > 0; depth += 1) {
    const next = open.flatMap(state => editsAt(state, operation, wanted, account).map(edit => applied(state, edit)))
    const turned = next.filter(state => judge(state, operation).allowed === wanted)
    if (turned.length > 0)
      return turned
        .map(({ edits, rights: after }) => ({ edits, rights: after }))
        .sort((a, b) => reach(a.edits, rights, somebody) - reach(b.edits, rights, somebody))
        .slice(0, mostWays)
    open = next
  }
  return []
}

/** How many are touched, in order of size: somebody alone, a group, everybody. */
function reach(edits: readonly SmbEdit[], { grants }: SmbRights, { durableId }: SignedIn): number {
  return Math.max(
    ...edits.map(edit => {
      if (edit.of === 'smb-member' || edit.of === 'new-grant' || edit.of === 'smb-entry') return 0
      if (edit.of === 'smb-entry-gone') return 2
      if (edit.of === 'smb-mode') return edit.modeClass === 'owner' ? 1 : edit.modeClass === 'group' ? 2 : 3
      const who = grants[edit.index]?.who
      return who === durableId ? 0 : who === everybody ? 3 : 2
    }),
  )
}

function editsAt({ rights, somebody }: State, operation: FileOperation, wanted: boolean, account: string): SmbEdit[] {
  const answer = judge({ rights, somebody, edits: [] }, operation)
  if (answer.decidedBy === 'authentication') return []
  const needed: GrantedRight = operation === 'write' ? 'change' : 'read'
  const least: GrantedRight = operation === 'write' ? 'read' : 'none'
  const all = allGrants(rights)
  const deciding = decidingGrant(all, somebody)
  const own = deciding === undefined ? undefined : all[deciding]
  // What stands at the service is for all of its shares: it is not for a draft about one.
  const index = deciding !== undefined && deciding < rights.grants.length ? deciding : undefined
  if (!wanted)
    return [
      ...(own?.who === somebody.durableId && index !== undefined
        ? []
        : [{ of: 'new-grant' as const, who: somebody.durableId, name: account, right: 'none' as const }]),
      ...(index === undefined
        ? []
        : [
            { of: 'grant' as const, index, right: least },
            { of: 'grant-gone' as const, index },
          ]),
      ...modeEdits(rights.root, answer, operation, false, somebody.uid),
    ]
  if (answer.decidedBy === 'share-grant')
    return [
      // A refusal stands before whatever is granted: a grant beside it turns nothing.
      ...(own?.right === 'none' || (own?.who === somebody.durableId && index !== undefined)
        ? []
        : [{ of: 'new-grant' as const, who: somebody.durableId, name: account, right: needed }]),
      ...(index === undefined ? [] : [{ of: 'grant' as const, index, right: needed }]),
      ...(index === undefined || own?.right !== 'none' ? [] : [{ of: 'grant-gone' as const, index }]),
    ]
  return modeEdits(rights.root, answer, operation, true, somebody.uid)
}

function modeEdits(
  root: FileOwner,
  { modeClass: counts, entryIndex }: GrantAnswer,
  operation: FileOperation,
  isGiven: boolean,
  uid: number,
): SmbEdit[] {
  if (counts === undefined || counts === 'superuser') return []
  const deciding = entryIndex == null ? undefined : root.acl?.[entryIndex]
  const members = isGiven ? groupsThatMay(root, counts, operation) : []
  return [
    ...(entryIndex === undefined
      ? [{ of: 'smb-mode' as const, modeClass: counts, mode: withBit(root.mode, counts, operation, isGiven) }]
      : [
          {
            of: 'smb-entry' as const,
            entry: { kind: isGiven ? ('allow' as const) : ('deny' as const), who: `uid:${uid}`, may: operation },
          },
        ]),
    ...(entryIndex == null || deciding?.kind === (isGiven ? 'allow' : 'deny')
      ? []
      : [{ of: 'smb-entry-gone' as const, index: entryIndex }]),
    ...members.map(gid => ({ of: 'smb-member' as const, gid })),
  ]
}

function applied({ rights, somebody, edits }: State, edit: SmbEdit): State {
  const state = { rights, somebody, edits: [...edits, edit] }
  const { grants } = rights
  switch (edit.of) {
    case 'new-grant': {
      const { who, name, right } = edit
      return { ...state, rights: { ...rights, grants: [...grants, { who, name, right }] } }
    }
    case 'grant':
      return {
        ...state,
        rights: {
          ...rights,
          grants: grants.map((each, at) => (at === edit.index ? { ...each, right: edit.right } : each)),
        },
      }
    case 'grant-gone':
      return { ...state, rights: { ...rights, grants: grants.filter((_, at) => at !== edit.index) } }
    case 'smb-mode':
      return { ...state, rights: { ...rights, root: { ...rights.root, mode: edit.mode } } }
    case 'smb-entry':
      return { ...state, rights: { ...rights, root: withEntry(rights.root, edit.entry) } }
    case 'smb-entry-gone':
      return { ...state, rights: { ...rights, root: withoutEntry(rights.root, edit.index) } }
    case 'smb-member':
      return { ...state, somebody: { ...somebody, groups: [...somebody.groups, edit.gid] } }
  }
}

/** What edits do, one after another, as a draft would say it. @param grants as they stand before the first */
export function smbEditsWords(edits: readonly SmbEdit[], grants: readonly ShareGrant[]): string {
  let now = grants
  const words = edits.map((edit, index) => {
    const own = wordsOf(edit, now)
    if (edit.of === 'grant-gone') now = now.filter((_, at) => at !== edit.index)
    return index === 0 ? own : `${own.charAt(0).toLowerCase()}${own.slice(1)}`
  })
  return words.join('; ')
}

function wordsOf(edit: SmbEdit, grants: readonly ShareGrant[]): string {
  switch (edit.of) {
    case 'new-grant':
      return edit.right === 'none' ? `Refuse ${edit.name}` : `Grant ${edit.name}: ${edit.right}`
    case 'grant':
      return `Set the grant of ${grants[edit.index]?.name ?? 'that group'} to ${edit.right}`
    case 'grant-gone':
      return `Take the grant of ${grants[edit.index]?.name ?? 'that group'} away`
    case 'smb-mode':
      return `Set the mode of its root to ${edit.mode}`
    case 'smb-entry':
      return `Add an entry to its access list: ${whoWords(edit.entry.who)} ${entryWords(edit.entry)}`
    case 'smb-entry-gone':
      return `Take entry ${edit.index + 1} of its access list away`
    case 'smb-member':
      return `Take this identity into the group with gid ${edit.gid}`
  }
}
