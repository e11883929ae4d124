import type { SignedException } from '../estate'
import { covers } from './covers'
import type { Finding } from './Finding'

export interface StandingFinding {
  readonly finding: Finding
  /** The signed exception under which it stands, while that lasts. */
  readonly exception: SignedException | undefined
}

/** Findings with the exceptions that cover them now; one that has run out covers nothing. */
export function standing(
  findings: readonly Finding[],
  exceptions: readonly SignedException[],
  now: Date,
): StandingFinding[] {
  return findings.map(finding => ({
    finding,
    exception: exceptions.find(
      each =>
        each.findingKey === finding.key &&
        covers(each.gravity, finding.gravity) &&
        Date.parse(each.until) > now.getTime(),
    ),
  }))
}
