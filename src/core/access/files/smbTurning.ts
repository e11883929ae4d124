import { isLetBy, withBit, type FileOperation, type FileOwner, type ModeClass } from './modeBits'
import {
  decidingGrant,
  everybody,
  mayBySmb,
  type GrantAnswer,
  type GrantedRight,
  type ShareGrant,
  type SignedIn,
} from './shareGrants'

/** What decides of a share over SMB: its grants, and its root directory. */
export interface SmbRights {
  readonly grants: readonly ShareGrant[]
  readonly root: FileOwner
}

export type SmbEdit =
  | { readonly of: 'new-grant'; readonly who: string; readonly name: string; readonly right: GrantedRight }
  | { readonly of: 'grant'; readonly index: number; readonly right: GrantedRight }
  | { readonly of: 'grant-gone'; readonly index: number }
  | { readonly of: 'smb-mode'; readonly modeClass: Exclude<ModeClass, 'superuser'>; readonly mode: string }
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
  mayBySmb(rights.grants, somebody, operation, rights.root)

/**
 * The smallest changes that would turn an answer over SMB, found by search over what the deciding gate lets be changed; among as many
 * edits those first that touch fewest people. Each has been tried. Nothing turns the answer for whom the directory lets not sign in.
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
      if (edit.of === 'smb-member' || edit.of === 'new-grant') return 0
      if (edit.of === 'smb-mode') return edit.modeClass === 'owner' ? 1 : edit.modeClass === 'group' ? 2 : 3
      const who = grants[edit.index]?.who
      return who === durableId ? 0 : who === everybody ? 3 : 2
    }),
  )
}

function editsAt({ rights, somebody }: State, operation: FileOperation, wanted: boolean, account: string): SmbEdit[] {
  const answer = mayBySmb(rights.grants, somebody, operation, rights.root)
  if (answer.decidedBy === 'authentication') return []
  const needed: GrantedRight = operation === 'write' ? 'change' : 'read'
  const least: GrantedRight = operation === 'write' ? 'read' : 'none'
  const index = decidingGrant(rights.grants, somebody)
  const own = index === undefined ? undefined : rights.grants[index]
  if (!wanted)
    return [
      ...(own?.who === somebody.durableId
        ? []
        : [{ of: 'new-grant' as const, who: somebody.durableId, name: account, right: 'none' as const }]),
      ...(index === undefined
        ? []
        : [
            { of: 'grant' as const, index, right: least },
            { of: 'grant-gone' as const, index },
          ]),
      ...modeEdits(rights.root, answer, operation, false),
    ]
  if (answer.decidedBy === 'share-grant')
    return [
      // A refusal stands before whatever is granted: a grant beside it turns nothing.
      ...(own?.right === 'none' || own?.who === somebody.durableId
        ? []
        : [{ of: 'new-grant' as const, who: somebody.durableId, name: account, right: needed }]),
      ...(index === undefined ? [] : [{ of: 'grant' as const, index, right: needed }]),
      ...(index === undefined || own?.right !== 'none' ? [] : [{ of: 'grant-gone' as const, index }]),
    ]
  return modeEdits(rights.root, answer, operation, true)
}

function modeEdits(
  root: FileOwner,
  { modeClass: counts }: GrantAnswer,
  operation: FileOperation,
  isGiven: boolean,
): SmbEdit[] {
  if (counts === undefined || counts === 'superuser') return []
  return [
    { of: 'smb-mode', modeClass: counts, mode: withBit(root.mode, counts, operation, isGiven) },
    ...(isGiven && counts === 'other' && isLetBy(root.mode, 'group', operation)
      ? [{ of: 'smb-member' as const, gid: root.gid }]
      : []),
  ]
}

function applied({ rights, somebody, edits }: State, edit: SmbEdit): State {
  const state = { rights, somebody, edits: [...edits, edit] }
  const { grants, root } = rights
  switch (edit.of) {
    case 'new-grant': {
      const { who, name, right } = edit
      return { ...state, rights: { root, grants: [...grants, { who, name, right }] } }
    }
    case 'grant':
      return {
        ...state,
        rights: { root, grants: grants.map((each, at) => (at === edit.index ? { ...each, right: edit.right } : each)) },
      }
    case 'grant-gone':
      return { ...state, rights: { root, grants: grants.filter((_, at) => at !== edit.index) } }
    case 'smb-mode':
      return { ...state, rights: { grants, root: { ...root, mode: edit.mode } } }
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
    case 'smb-member':
      return `Take this identity into the group with gid ${edit.gid}`
  }
}
