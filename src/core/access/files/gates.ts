import { entryWords, judgeFile, whoWords } from './accessList'
import { exportTable } from './exportRules'
import { mayFile, squashed, type FileAnswer, type FileRequest } from './mayFile'
import { modeLetters, type FileIdentity, type FileOperation, type FileOwner } from './modeBits'
import { allGrants, everybody, mayBySmb, type GrantAnswer, type SignedIn } from './shareGrants'
import type { SmbRights } from './smbTurning'
import type { ShareRights } from './turning'

/** One thing that a request must pass. */
export interface Gate {
  readonly gate:
    | 'service'
    | 'protocol'
    | 'export-rule'
    | 'authentication'
    | 'share-grant'
    | 'mode-bits'
    | 'acl'
    | 'room'
    | 'quota'
  readonly label: string
  /** Behind the gate that stops it, others say what they would do. */
  readonly state: 'passes' | 'stops' | 'would pass' | 'would stop' | 'not known'
  readonly why: string
}

/** What else decides of a share. */
export interface ShareState {
  readonly name: string
  /** By which it is served; absent where that is not asked. */
  readonly protocols?: readonly string[]
  /** The directory to which its service belongs; null where it belongs to none. */
  readonly joinedTo?: string | null
  /** Addresses at which its service answers now. */
  readonly addresses: readonly string[]
  /** Bytes that can still be written; null where nobody has said. */
  readonly freeBytes: bigint | null
  /** What the quotas at its root leave to somebody; absent where none counts. */
  readonly quotaOf?: (uid: number, gid: number) => { readonly leftBytes: bigint; readonly words: string } | undefined
}

export interface GateAnswer {
  readonly allowed: boolean
  readonly gates: readonly Gate[]
  readonly answer: FileAnswer
}

/** Every gate in order, with what decided it; those behind the first that stops are told all the same. */
export function fileGates(rights: ShareRights, state: ShareState, request: FileRequest): GateAnswer {
  const answer = mayFile(exportTable(rights.rules), request, rights.root)
  const rule = answer.ruleIndex === null ? undefined : rights.rules[answer.ruleIndex]
  const { uid, gid } = rule === undefined ? request : squashed(rule, request)
  return {
    ...inOrder([
      serviceGate(state),
      ...protocolGate(state, 'NFS'),
      exportGate(rights, request, answer),
      signInGate(rights, request, answer),
      modeGate(rights, request, answer),
      ...roomGates(state, request.operation, uid, gid),
    ]),
    answer,
  }
}

/** Every gate in order over SMB, for somebody whom the directory knows. */
export function smbGates(
  rights: SmbRights,
  state: ShareState,
  somebody: SignedIn,
  operation: FileOperation,
): Omit<GateAnswer, 'answer'> & { readonly answer: GrantAnswer } {
  const answer = mayBySmb(allGrants(rights), somebody, operation, rights.root)
  const { joinedTo } = state
  const isJoined = joinedTo !== null
  const why = somebody.isDisabled
    ? 'the directory lets that account not sign in'
    : isJoined
      ? `by password or ticket${joinedTo === undefined ? '' : `, of ${joinedTo}`}`
      : 'its file service belongs to no directory'
  return {
    ...inOrder([
      serviceGate(state),
      ...protocolGate(state, 'SMB'),
      { gate: 'authentication', label: 'Sign-in', isOpen: isJoined && !somebody.isDisabled, why },
      grantGate(rights, answer, operation),
      rootGate(rights.root, somebody, operation, `uid ${somebody.uid}`),
      ...roomGates(state, operation, somebody.uid, somebody.gid),
    ]),
    answer,
  }
}

function inOrder(read: readonly Open[]): Omit<GateAnswer, 'answer'> {
  let isStopped = false
  const gates = read.map(({ isOpen, ...gate }): Gate => {
    const stated = isStopped ? (isOpen ? 'would pass' : 'would stop') : isOpen ? 'passes' : 'stops'
    isStopped ||= !isOpen
    return { ...gate, state: stated }
  })
  return { allowed: !isStopped, gates }
}

const serviceGate = ({ addresses }: ShareState): Open => ({
  gate: 'service',
  label: 'Service',
  isOpen: addresses.length > 0,
  why: addresses.length === 0 ? 'none of its addresses answers' : `answers at ${addresses.join(', ')}`,
})

/** Told only where the share is not served so. */
function protocolGate({ protocols }: ShareState, family: 'NFS' | 'SMB'): Open[] {
  if (protocols === undefined || protocols.some(each => each.startsWith(family))) return []
  return [{ gate: 'protocol', label: 'Protocol', isOpen: false, why: `it is not shared over ${family}` }]
}

function roomGates({ freeBytes, quotaOf }: ShareState, operation: FileOperation, uid: number, gid: number): Open[] {
  if (operation !== 'write') return []
  const left = quotaOf?.(uid, gid)
  return [
    ...(freeBytes === null
      ? []
      : [
          {
            gate: 'room' as const,
            label: 'Room',
            isOpen: freeBytes > 0n,
            why: freeBytes > 0n ? 'there is room in it' : 'it is full',
          },
        ]),
    ...(left === undefined
      ? []
      : [{ gate: 'quota' as const, label: 'Quota', isOpen: left.leftBytes > 0n, why: left.words }]),
  ]
}

function grantGate(rights: SmbRights, { grantIndex }: GrantAnswer, operation: FileOperation): Open {
  const grant = grantIndex === null ? undefined : allGrants(rights)[grantIndex]
  const head = { gate: 'share-grant', label: 'Share grant' } as const
  if (grant === undefined) return { ...head, isOpen: false, why: 'none is for that account, nor for any of its groups' }
  const isOpen = grant.right === 'change' || grant.right === 'full' || (grant.right === 'read' && operation === 'read')
  const says = { full: 'everything', change: 'reads and writes', read: 'only reads', none: 'is refused' }[grant.right]
  const where = (grantIndex ?? 0) < rights.grants.length ? '' : ', by its whole service'
  return { ...head, isOpen, why: `${grant.who === everybody ? 'everybody who signs in' : grant.name}: ${says}${where}` }
}

/** What the root directory itself lets somebody do: by its access list, else by its mode. @param who in words */
function rootGate(root: FileOwner, somebody: FileIdentity, operation: FileOperation, who: string): Open {
  const { allowed, modeClass: counts, entryIndex } = judgeFile(root, somebody, operation)
  if (counts === 'superuser')
    return { gate: 'mode-bits', label: 'Mode', isOpen: allowed, why: `${who}: modes do not stop it` }
  if (entryIndex === undefined)
    return {
      gate: 'mode-bits',
      label: 'Mode',
      isOpen: allowed,
      why: `${who}, ${counts}: ${modeLetters(root.mode, counts)}`,
    }
  const entry = entryIndex === null ? undefined : root.acl?.[entryIndex]
  const said =
    entry === undefined
      ? 'no entry lets it'
      : `entry ${(entryIndex ?? 0) + 1}, ${whoWords(entry.who)}: ${entryWords(entry)}`
  return { gate: 'acl', label: 'Access list', isOpen: allowed, why: `${who}: ${said}` }
}

type Open = Omit<Gate, 'state'> & { readonly isOpen: boolean }

function exportGate(
  { rules }: ShareRights,
  { operation, clientAddress }: FileRequest,
  { ruleIndex }: FileAnswer,
): Open {
  const rule = ruleIndex === null ? undefined : rules[ruleIndex]
  const head = { gate: 'export-rule', label: 'Export rule' } as const
  if (rule === undefined) return { ...head, isOpen: false, why: `no rule is for ${clientAddress}` }
  const isOpen = rule.access === 'rw' || (rule.access === 'ro' && operation === 'read')
  const says = { rw: 'reads and writes', ro: 'only reads', none: 'nothing' }[rule.access]
  return { ...head, isOpen, why: `rule ${(ruleIndex ?? 0) + 1}, ${rule.client}: ${says}` }
}

function signInGate({ rules }: ShareRights, { flavour }: FileRequest, { ruleIndex }: FileAnswer): Open {
  const taken = (ruleIndex === null ? undefined : rules[ruleIndex])?.flavours ?? []
  const isOpen = taken.includes(flavour)
  return {
    gate: 'authentication',
    label: 'Sign-in',
    isOpen,
    why: isOpen ? flavour : `${flavour} is not taken; ${taken.join(', ') || 'nothing'} is`,
  }
}

function modeGate({ rules, root }: ShareRights, request: FileRequest, { ruleIndex }: FileAnswer): Open {
  const rule = ruleIndex === null ? undefined : rules[ruleIndex]
  const effective = rule === undefined ? request : squashed(rule, request)
  const who = effective.uid === request.uid ? `uid ${effective.uid}` : `uid ${request.uid} counts as ${effective.uid}`
  return rootGate(root, effective, request.operation, who)
}
