import { exportTable } from './exportRules'
import { mayFile, squashed, type FileAnswer, type FileRequest } from './mayFile'
import { isLetBy, modeClass, modeLetters } from './modeBits'
import type { ShareRights } from './turning'

/** One thing that a request must pass. */
export interface Gate {
  readonly gate: 'service' | 'export-rule' | 'authentication' | 'mode-bits' | 'room' | 'quota'
  readonly label: string
  /** Behind the gate that stops it, others say what they would do. */
  readonly state: 'passes' | 'stops' | 'would pass' | 'would stop' | 'not known'
  readonly why: string
}

/** What else decides of a share. */
export interface ShareState {
  readonly name: string
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
  const read: readonly (Omit<Gate, 'state'> & { readonly isOpen: boolean })[] = [
    {
      gate: 'service',
      label: 'Service',
      isOpen: state.addresses.length > 0,
      why: state.addresses.length === 0 ? 'none of its addresses answers' : `answers at ${state.addresses.join(', ')}`,
    },
    exportGate(rights, request, answer),
    signInGate(rights, request, answer),
    modeGate(rights, request, answer),
    ...(request.operation === 'write' && state.freeBytes !== null
      ? [
          {
            gate: 'room' as const,
            label: 'Room',
            isOpen: state.freeBytes > 0n,
            why: state.freeBytes > 0n ? 'there is room in it' : 'it is full',
          },
        ]
      : []),
    ...quotaGate(rights, state, request, answer),
  ]
  let isStopped = false
  const gates = read.map(({ isOpen, ...gate }): Gate => {
    const stated = isStopped ? (isOpen ? 'would pass' : 'would stop') : isOpen ? 'passes' : 'stops'
    isStopped ||= !isOpen
    return { ...gate, state: stated }
  })
  return { allowed: !isStopped, gates, answer }
}

function quotaGate(
  { rules }: ShareRights,
  { quotaOf }: ShareState,
  request: FileRequest,
  { ruleIndex }: FileAnswer,
): Open[] {
  const rule = ruleIndex === null ? undefined : rules[ruleIndex]
  const { uid, gid } = rule === undefined ? request : squashed(rule, request)
  const left = request.operation === 'write' ? quotaOf?.(uid, gid) : undefined
  return left === undefined ? [] : [{ gate: 'quota', label: 'Quota', isOpen: left.leftBytes > 0n, why: left.words }]
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
  const counts = modeClass(effective, root)
  const isOpen = isLetBy(root.mode, counts, request.operation)
  const who = effective.uid === request.uid ? `uid ${effective.uid}` : `uid ${request.uid} counts as ${effective.uid}`
  const why =
    counts === 'superuser' ? `${who}: modes do not stop it` : `${who}, ${counts}: ${modeLetters(root.mode, counts)}`
  return { gate: 'mode-bits', label: 'Mode', isOpen, why }
}
