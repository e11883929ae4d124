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
  /** Where the change that would satisfy it is drafted. */
  readonly href?: string
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

/** A cluster as it would be: its banks in the bays, and all that follows from the choice. */
export interface ClusterSketch {
  readonly of: 'cluster'
  readonly ladder: readonly RungText[]
  readonly banks: readonly {
    readonly nodeId: string
    readonly number: number
    readonly cacheDriveId: string
    readonly capacityDriveIds: readonly string[]
  }[]
  readonly domains: readonly { readonly name: string; readonly rawBytes: string; readonly strandedBytes: string }[]
  readonly lacking: { readonly bytes: string; readonly domainNames: readonly string[] } | null
  readonly tolerance: { readonly readable: number; readonly writable: number; readonly domainWords: string }
  readonly writeCost: { readonly smallWriteOperations: number; readonly fullStripeRatio: number }
  readonly rebuild: { readonly seconds: number; readonly boundBy: string } | null
  readonly durability: {
    readonly oneYear: number
    readonly fiveYears: number
    readonly whileOneIsAway: number
    readonly awayHours: number
    readonly basis: string
  } | null
  /** Other layouts of the same drives. */
  readonly alternatives: readonly {
    readonly words: string
    readonly freeBytes: string
    readonly strandedBytes: string
    readonly readable: number
    readonly writable: number
  }[]
  /** What is alike in all nodes and what is not. */
  readonly nodes: readonly {
    readonly id: string
    readonly name: string
    readonly cells: readonly { readonly what: string; readonly value: string; readonly isOdd: boolean }[]
  }[]
}

/** Which pool is the place for a volume, and why: all pools, the best first, those that cannot be it with the reasons. */
export interface PlacementSketch {
  readonly of: 'placement'
  /** The pool that it goes to; null where there is none. */
  readonly chosenId: string | null
  readonly measures: readonly { readonly measure: string; readonly words: string; readonly of: number }[]
  readonly pools: readonly {
    readonly id: string
    readonly name: string
    readonly score: number
    readonly parts: readonly {
      readonly measure: string
      readonly place: number
      readonly points: number
      readonly words: string
      readonly least: number | null
    }[]
    readonly out: readonly string[]
  }[]
}

/** What a draft draws beside its figures. */
export type Sketch =
  | PlacementSketch
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
  | ClusterSketch
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

/** A plan as it is shown: of the thousands of objects that it may rest on only how they stand, and not what it claims. */
export interface ShownPlan extends Omit<Plan, 'reads' | 'claims'> {
  /** The revisions of all that it rests on, in its order: a plan that would do the same and has others rests on something else. */
  readonly revisions: string
}

export function shownPlan({ reads, claims: _claims, ...shown }: Plan): ShownPlan {
  return { ...shown, revisions: reads.map(({ revision }) => revision).join(' ') }
}

/** Whether every check that must hold does. */
export const isReady = (plan: Pick<Plan, 'checks'>) => plan.checks.every(check => check.holds || check.level === 'warn')
