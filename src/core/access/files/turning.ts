import { entryWords, readWho, whoWords, withEntry, withoutEntry } from './accessList'
import { addressOf } from './client'
import { exportTable, type ExportRule } from './exportRules'
import { mayFile, type FileAnswer, type FileRequest } from './mayFile'
import { type AccessEntry, isLetBy, withBit, type FileOwner, type ModeClass } from './modeBits'
import { ruleReach } from './ruleReach'

/** What decides of a share: its export rules, and its root directory. */
export interface ShareRights {
  readonly rules: readonly ExportRule[]
  readonly root: FileOwner
}

/** One thing that can be changed. */
export type Edit =
  | { readonly of: 'access'; readonly index: number; readonly access: ExportRule['access'] }
  | { readonly of: 'rule-gone'; readonly index: number }
  | { readonly of: 'host-rule'; readonly client: string; readonly access: ExportRule['access'] }
  | { readonly of: 'flavour'; readonly index: number; readonly flavour: FileRequest['flavour'] }
  | { readonly of: 'squash'; readonly index: number; readonly squash: ExportRule['squash'] }
  | { readonly of: 'mode'; readonly modeClass: Exclude<ModeClass, 'superuser'>; readonly mode: string }
  | { readonly of: 'entry'; readonly entry: AccessEntry }
  | { readonly of: 'entry-gone'; readonly index: number }
  | { readonly of: 'member'; readonly gid: number }

/** A way to turn an answer: the fewest edits that do it. */
export interface Turning {
  readonly edits: readonly Edit[]
  readonly rights: ShareRights
  /** For how many hosts something is otherwise afterwards; null for all that may ask. */
  readonly addresses: bigint | null
}

interface State {
  readonly rights: ShareRights
  readonly request: FileRequest
  readonly edits: readonly Edit[]
}

/** Export rule, sign-in and mode: no more gates can stand in the way. */
const mostEdits = 3
const mostWays = 8

const answerOf = ({ rights, request }: Pick<State, 'rights' | 'request'>): FileAnswer =>
  mayFile(exportTable(rights.rules), request, rights.root)

/**
 * The smallest changes that would turn an answer, found by search over what the deciding gate lets be changed: fewest edits first, and
 * among those the ones that touch fewest hosts. Each has been tried: afterwards the answer is the other one.
 */
export function turningChanges(rights: ShareRights, request: FileRequest): Turning[] {
  const wanted = !answerOf({ rights, request }).allowed
  let open: State[] = [{ rights, request, edits: [] }]
  for (let depth = 0; depth < mostEdits && open.length > 0; depth += 1) {
    const next = open.flatMap(state => editsAt(state, wanted).map(edit => applied(state, edit)))
    const turned = next.filter(state => answerOf(state).allowed === wanted)
    if (turned.length > 0)
      return turned
        .map(({ edits, rights: after }) => ({ edits, rights: after, addresses: reachOf(edits, rights) }))
        .sort((a, b) => byReach(a.addresses, b.addresses))
        .slice(0, mostWays)
    open = next
  }
  return []
}

const byReach = (a: bigint | null, b: bigint | null) =>
  a === b ? 0 : a === null ? 1 : b === null ? -1 : a < b ? -1 : 1

/** What could be changed about the gate that decides now. */
function editsAt({ rights, request }: State, wanted: boolean): Edit[] {
  const answer = answerOf({ rights, request })
  const access = wanted ? (request.operation === 'write' ? 'rw' : 'ro') : request.operation === 'write' ? 'ro' : 'none'
  const rules = ruleEdits(rights, request, answer, access)
  if (!wanted) return [...rules, ...modeEdits(rights, request, answer, false)]
  if (answer.decidedBy === 'export-rule') return rules
  const { ruleIndex } = answer
  if (answer.decidedBy === 'authentication')
    return ruleIndex === null ? [] : [{ of: 'flavour', index: ruleIndex, flavour: request.flavour }, ...rules]
  return modeEdits(rights, request, answer, true)
}

function ruleEdits(
  { rules }: ShareRights,
  request: FileRequest,
  { ruleIndex }: FileAnswer,
  access: ExportRule['access'],
): Edit[] {
  const client = addressOf(request.clientAddress) === undefined ? request.clientName : request.clientAddress
  const own = ruleIndex === null ? undefined : rules[ruleIndex]
  return [
    ...(client === null || own?.client === client ? [] : [{ of: 'host-rule' as const, client, access }]),
    ...(ruleIndex === null
      ? []
      : [
          { of: 'access' as const, index: ruleIndex, access },
          { of: 'rule-gone' as const, index: ruleIndex },
        ]),
  ]
}

function modeEdits({ rules, root }: ShareRights, request: FileRequest, answer: FileAnswer, isGiven: boolean): Edit[] {
  const { modeClass: counts, ruleIndex } = answer
  if (counts === undefined || ruleIndex === null) return []
  const rule = rules[ruleIndex]
  const bit: Edit[] =
    counts === 'superuser'
      ? [{ of: 'squash', index: ruleIndex, squash: 'root' }]
      : answer.entryIndex !== undefined
        ? entryEdits(root, answer, request.operation, isGiven)
        : [{ of: 'mode', modeClass: counts, mode: withBit(root.mode, counts, request.operation, isGiven) }]
  if (!isGiven) return bit
  const isSquashed = rule !== undefined && (rule.squash === 'all' || (rule.squash === 'root' && request.uid === 0))
  return [
    ...bit,
    ...(isSquashed
      ? [{ of: 'squash' as const, index: ruleIndex, squash: request.uid === 0 ? ('none' as const) : ('root' as const) }]
      : []),
    ...(isSquashed ? [] : groupsThatMay(root, counts, request.operation).map(gid => ({ of: 'member' as const, gid }))),
  ]
}

/** An entry more before all others, or the one that decides gone. */
const entryEdits = (
  { acl = [] }: FileOwner,
  { effectiveUid = 0, entryIndex }: FileAnswer,
  may: FileRequest['operation'],
  isGiven: boolean,
): Edit[] => [
  { of: 'entry', entry: { kind: isGiven ? 'allow' : 'deny', who: `uid:${effectiveUid}`, may } },
  ...(entryIndex == null || acl[entryIndex]?.kind === (isGiven ? 'allow' : 'deny')
    ? []
    : [{ of: 'entry-gone' as const, index: entryIndex }]),
]

/** Groups whose members may, of which somebody who is none could be made one. */
export function groupsThatMay(root: FileOwner, counts: ModeClass, operation: FileRequest['operation']): number[] {
  const { acl = [], gid, mode } = root
  if (acl.length === 0) return counts === 'other' && isLetBy(mode, 'group', operation) ? [gid] : []
  const named = acl.flatMap(({ kind, who, may }) => {
    if (kind === 'deny' || (may !== 'both' && may !== operation)) return []
    const read = readWho(who)
    return who === 'GROUP@' ? [gid] : read?.sort === 'gid' ? [read.id] : []
  })
  return [...new Set(named)]
}

/** The state after one more edit. */
function applied({ rights, request, edits }: State, edit: Edit): State {
  const state = { rights, request, edits: [...edits, edit] }
  const { rules } = rights
  const withRule = (index: number, change: Partial<ExportRule>): State => ({
    ...state,
    rights: { ...rights, rules: rules.map((each, at) => (at === index ? { ...each, ...change } : each)) },
  })
  switch (edit.of) {
    case 'access':
      return withRule(edit.index, { access: edit.access })
    case 'squash':
      return withRule(edit.index, { squash: edit.squash })
    case 'flavour':
      return withRule(edit.index, { flavours: [...(rules[edit.index]?.flavours ?? []), edit.flavour] })
    case 'rule-gone':
      return { ...state, rights: { ...rights, rules: rules.filter((_, at) => at !== edit.index) } }
    case 'host-rule': {
      const like = rules.find((_, at) => at === answerOf({ rights, request }).ruleIndex)
      // A rule for one host believes it; only its root is nobody, unless root is who asks.
      const squash = request.uid === 0 ? ('none' as const) : newRule.squash
      const flavours = like?.flavours ?? newRule.flavours
      const rule: ExportRule = { ...newRule, squash, flavours, client: edit.client, access: edit.access }
      return { ...state, rights: { ...rights, rules: [rule, ...rules] } }
    }
    case 'mode':
      return { ...state, rights: { ...rights, root: { ...rights.root, mode: edit.mode } } }
    case 'entry':
      return { ...state, rights: { ...rights, root: withEntry(rights.root, edit.entry) } }
    case 'entry-gone':
      return { ...state, rights: { ...rights, root: withoutEntry(rights.root, edit.index) } }
    case 'member':
      return { ...state, request: { ...request, groups: [...request.groups, edit.gid] } }
  }
}

/** What a rule begins with: root is nobody, and hosts are believed who asks. */
export const newRule: ExportRule = {
  client: '',
  access: 'ro',
  squash: 'root',
  anonUid: 65_534,
  anonGid: 65_534,
  flavours: ['sys'],
}

/** For how many hosts edits count; a mode counts for all. */
function reachOf(edits: readonly Edit[], { rules }: ShareRights): bigint | null {
  const reach = ruleReach(rules)
  let most: bigint | null = 0n
  let shifted = 0
  for (const edit of edits) {
    if (edit.of === 'host-rule') shifted += 1
    const own =
      edit.of === 'mode' || edit.of === 'entry-gone'
        ? null
        : edit.of === 'host-rule'
          ? 1n
          : edit.of === 'member' || edit.of === 'entry'
            ? 0n
            : (reach[edit.index - shifted]?.addresses ?? (edit.index < shifted ? 1n : null))
    if (byReach(most, own) < 0) most = own
  }
  return most
}

/** What edits do, one after another, as a draft would say it. @param rules as they stand before the first */
export function editsWords(edits: readonly Edit[], rules: readonly ExportRule[]): string {
  let now = rules
  const words = edits.map((edit, index) => {
    const own = editWords(edit, now)
    if (edit.of === 'host-rule') now = [{ ...newRule, client: edit.client }, ...now]
    if (edit.of === 'rule-gone') now = now.filter((_, at) => at !== edit.index)
    return index === 0 ? own : `${own.charAt(0).toLowerCase()}${own.slice(1)}`
  })
  return words.join('; ')
}

function editWords(edit: Edit, rules: readonly ExportRule[]): string {
  const named = (index: number) => `rule ${index + 1}${rules[index] === undefined ? '' : `, ${rules[index].client},`}`
  switch (edit.of) {
    case 'access':
      return `Set ${named(edit.index)} to ${edit.access}`
    case 'rule-gone':
      return `Take ${named(edit.index)} away`
    case 'host-rule':
      return `Add a rule for ${edit.client}: ${edit.access}`
    case 'flavour':
      return `Let ${named(edit.index)} take ${edit.flavour}`
    case 'squash':
      return `Set the squash of ${named(edit.index)} to ${edit.squash}`
    case 'mode':
      return `Set the mode of its root to ${edit.mode}`
    case 'entry':
      return `Add an entry to its access list: ${whoWords(edit.entry.who)} ${entryWords(edit.entry)}`
    case 'entry-gone':
      return `Take entry ${edit.index + 1} of its access list away`
    case 'member':
      return `Take this identity into group ${edit.gid}`
  }
}
