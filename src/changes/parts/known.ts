import { WendrelError } from '@/core/errors'
import type { Estate } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { Facts } from '../ChangeKind'

/** A change goes on without what it must know: a step before has not found it out, or its plan holds no step. */
export class NotKnown extends WendrelError {
  readonly code = 'change.not-known'
  constructor(what: string) {
    super({
      what: `The change does not know ${what}.`,
      why: 'No step before has found it out.',
      remedy: 'Look at what its steps say in the record, and draft it again.',
    })
  }
}

/** What a step has found out, without what it has not. */
export const found = (known: Readonly<Record<string, string | null | undefined>>): Facts =>
  Object.fromEntries(Object.entries(known).flatMap(([name, value]) => (value == null ? [] : [[name, value] as const])))

/** What a step before has found out. @throws NotKnown: nothing is ever asked of a system under an empty name */
export function fact(facts: Facts, name: string): string {
  const known = facts[name]
  if (known === undefined || known === '') throw new NotKnown(name)
  return known
}

/** The first step of a plan that was carried out. @throws NotKnown when it has none */
export function firstStep<Step>(plan: Plan<Step>): Step {
  const [first] = plan.steps
  if (first === undefined) throw new NotKnown('its first step')
  return first.step
}

/** Of a change to one system whose steps tell which: it is read anew. */
export const itsSystem = (_intent: unknown, _estate: Estate, { systemId }: Facts): readonly string[] =>
  systemId === undefined ? [] : [systemId]
