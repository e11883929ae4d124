import type { CodedRefusal } from '../errors'
import { shownPlan, type ChangeState, type Plan, type ShownPlan } from '../plan'
import type { Forecast } from '../transfer'

/** A change as it is kept. Instants are ISO 8601; `estate` ones in the estate's own time. */
export interface ChangeRecord {
  readonly id: string
  readonly number: number
  readonly kind: string
  readonly state: ChangeState
  readonly title: string
  readonly intent: Readonly<Record<string, unknown>>
  readonly plan: Plan
  /** What changed in the estate since the plan was last seen; shown once, then part of the new plan. */
  readonly differences: readonly string[]
  /** Names intent and plan as they are now: who carries the change out says by it what was seen. */
  readonly planDigest: string
  /** How often its intent has been altered (count, from 1), and who did it last. */
  readonly edit: number
  readonly editedBy: string
  readonly madeBy: string
  readonly madeAt: string
  readonly carriedOutAt: string | null
  readonly carriedOutEstateAt: string | null
  readonly endedAt: string | null
  readonly endedEstateAt: string | null
  readonly isStopWanted: boolean
  readonly isUndoWanted: boolean
  /** What steps found out: locators, ids, names. */
  readonly facts: Readonly<Record<string, unknown>>
  readonly refusal: CodedRefusal | null
  /** What stands of a change that did not come to its end. */
  readonly stands: string | null
  readonly reverses: string | null
  /** The wall's time for requests, the systems' own for their work; null until it has ended. */
  readonly tookSeconds: number | null
}

/** A change as whoever edits or follows it is shown it. */
export type ShownChange = Omit<ChangeRecord, 'plan'> & { readonly plan: ShownPlan }

export const shownChange = (change: ChangeRecord): ShownChange => ({ ...change, plan: shownPlan(change.plan) })

/** A change as lists show it: without its plan, which is most of what a change weighs, but for how long it was to take. */
export type ChangeSummary = Omit<ChangeRecord, 'plan' | 'facts' | 'differences'> & {
  readonly forecast: Forecast
}

export interface JournalEntry {
  readonly id: number
  readonly stepIndex: number
  readonly event: 'begun' | 'progress' | 'waited' | 'done' | 'failed' | 'undone'
  readonly at: string
  readonly estateAt: string
  readonly doneRatio: number | null
  readonly words: string
  readonly facts: Readonly<Record<string, unknown>>
}

export interface EvidenceEntry {
  readonly claim: string
  readonly holds: boolean
  readonly measured: Readonly<Record<string, string>>
  readonly at: string
  /** Which try to prove the change it is of (count, from 1). */
  readonly attempt: number
}
