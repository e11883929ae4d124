import { decidingRule, type Asking, type ExportRule, type ExportTable, type Flavour } from './exportRules'
import { judgeFile } from './accessList'
import type { FileIdentity, FileOperation, FileOwner, ModeClass } from './modeBits'

export interface FileRequest extends Asking, FileIdentity {
  readonly flavour: Flavour
  readonly operation: FileOperation
}

/** Whether somebody may, and what has decided it. */
export interface FileAnswer {
  readonly allowed: boolean
  /** The first gate that denies; the last where all allow. */
  readonly decidedBy: 'export-rule' | 'authentication' | 'mode-bits' | 'acl'
  /** Of the export rule that decides for the host; null where none is for it. */
  readonly ruleIndex: number | null
  /** Who it is after the rule's squash; absent before anybody is believed. */
  readonly effectiveUid?: number
  readonly effectiveGid?: number
  readonly modeClass?: ModeClass
  /** Of the entry of the access list that decided; null where none is for them, absent where none counts. */
  readonly entryIndex?: number | null
}

/** Who somebody is behind a rule: root, or everybody, becomes the anonymous one, without further groups. */
export function squashed(rule: ExportRule, { uid, gid, groups }: FileIdentity): FileIdentity {
  const isSquashed = rule.squash === 'all' || (rule.squash === 'root' && uid === 0)
  return isSquashed ? { uid: rule.anonUid, gid: rule.anonGid, groups: [] } : { uid, gid, groups }
}

/**
 * Whether somebody may read or write a file of a share over NFS: export rule, then authentication, then access list or mode bits; the first that denies
 * decides. @param table of the share's rules
 */
export const mayFile = (table: ExportTable, request: FileRequest, file: FileOwner): FileAnswer =>
  mayBehind(table, decidingRule(table, request), request, file)

/** Whether somebody may behind the rule that decides for his host: for many people on one host it is found once. */
export function mayBehind(
  table: ExportTable,
  index: number | undefined,
  request: Omit<FileRequest, keyof Asking>,
  file: FileOwner,
): FileAnswer {
  const rule = index === undefined ? undefined : table.rules[index]
  const ruleIndex = index ?? null
  if (rule === undefined || rule.access === 'none' || (rule.access === 'ro' && request.operation === 'write'))
    return { allowed: false, decidedBy: 'export-rule', ruleIndex }
  if (!rule.flavours.includes(request.flavour)) return { allowed: false, decidedBy: 'authentication', ruleIndex }
  const effective = squashed(rule, request)
  const verdict = judgeFile(file, effective, request.operation)
  return { ...verdict, ruleIndex, effectiveUid: effective.uid, effectiveGid: effective.gid }
}
