import { countWords, formatBytes } from '../units'

/** A look at the estate that somebody has done. */
export interface Round {
  readonly id: string
  readonly at: string
  readonly madeBy: string
  readonly note: string
}

/** What has become otherwise since a round. */
export interface SinceRound {
  readonly round: Round
  /** Changes that have ended since, by how. */
  readonly proven: number
  readonly unproven: number
  readonly stopped: number
  readonly newFindings: number
  readonly clearedFindings: number
  /** Written now less written then; below zero where space was given back. */
  readonly writtenBytes: bigint
}

/** It in words, the gravest first; undefined where nothing has become otherwise. */
export function sinceRoundWords(since: SinceRound): string | undefined {
  const { proven, unproven, stopped, newFindings, clearedFindings, writtenBytes } = since
  const grown = writtenBytes < 0n ? -writtenBytes : writtenBytes
  const parts = [
    newFindings === 0 ? '' : `${countWords(newFindings, 'finding is', 'findings are')} new`,
    unproven === 0 ? '' : `${countWords(unproven, 'change', 'changes')} could not be proven`,
    stopped === 0 ? '' : `${countWords(stopped, 'change', 'changes')} stopped or failed`,
    clearedFindings === 0 ? '' : `${countWords(clearedFindings, 'finding has', 'findings have')} gone`,
    proven === 0 ? '' : `${countWords(proven, 'change was', 'changes were')} carried out and proven`,
    writtenBytes === 0n ? '' : `${formatBytes(grown)} ${writtenBytes > 0n ? 'more' : 'less'} is written`,
  ].filter(part => part !== '')
  if (parts.length === 0) return undefined
  const last = parts.pop() ?? ''
  return parts.length === 0 ? last : `${parts.join(', ')} and ${last}`
}
