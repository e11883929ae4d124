import type { Forecast } from '../transfer'

/** A precondition as a line: what rule, whether it holds, and why. A `warn` that does not hold does not bar the change. */
export interface PlanCheck {
  readonly rule: string
  readonly holds: boolean
  readonly level: 'must' | 'warn'
  readonly why: string
  /** The field of the draft that would satisfy it. */
  readonly field?: string
  /** What would satisfy it. */
  readonly remedy?: string
}

/** A figure before and after; bytes as decimal text, so that a plan is plain JSON. */
export interface Effect {
  readonly figure: string
  readonly label: string
  readonly unit: 'bytes' | 'ratio' | 'seconds' | 'count' | 'probability' | 'words'
  readonly before: string | number | null
  readonly after: string | number | null
}

export interface PlannedStep<Step> {
  readonly name: string
  readonly words: string
  readonly forecast: Forecast
  readonly step: Step
}

export interface ObjectRead {
  readonly kind: string
  readonly id: string
  readonly name: string
  readonly revision: number
}

/** A rung with its bytes as decimal text. */
export interface RungText {
  readonly name: string
  readonly bytes: string
  readonly takenBytes: string
  readonly sum: readonly { readonly name: string; readonly bytes: string }[]
}

/** What a draft draws beside its figures. */
export type Sketch =
  | {
      readonly of: 'pool'
      readonly ladder: readonly RungText[]
      readonly groups: readonly { readonly driveIds: readonly string[]; readonly words: string }[]
      readonly spareDriveIds: readonly string[]
      readonly durability: {
        readonly survives: number
        readonly oneYear: number
        readonly fiveYears: number
        readonly rebuildHours: number
        readonly basis: string
      }
    }
  | {
      readonly of: 'pool-fill'
      readonly poolName: string
      readonly usableBytes: string
      readonly writtenBytes: string
      readonly provisionedBefore: string
      readonly provisionedAfter: string
    }

/** Everything that is known of a change before it is carried out. */
export interface Plan<Step = unknown> {
  readonly title: string
  readonly checks: readonly PlanCheck[]
  readonly effects: readonly Effect[]
  /** What cannot be undone or enlarged later, said before it matters. */
  readonly oneWay: readonly string[]
  readonly undo: { readonly possible: boolean; readonly how: string }
  readonly steps: readonly PlannedStep<Step>[]
  readonly forecast: Forecast
  /** Objects whose revision the plan rests on. */
  readonly reads: readonly ObjectRead[]
  /** Objects that no other change may touch while this one runs. */
  readonly claims: readonly string[]
  readonly proof: string
  readonly sketch?: Sketch
  /** Values that Wendrel suggests for fields left empty. */
  readonly suggestions?: Readonly<Record<string, string>>
}

/** Whether every check that must hold does. */
export const isReady = (plan: Plan) => plan.checks.every(check => check.holds || check.level === 'warn')
