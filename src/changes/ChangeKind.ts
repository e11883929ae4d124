import type { Estate, EstateNeeds, Settled } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'

/** What steps find out and hand on: plain JSON, kept in the journal. */
export type Facts = Readonly<Record<string, string>>

/** What was tested after a change, and what it measured. */
export interface Evidence {
  readonly claim: string
  readonly holds: boolean
  readonly measured: Readonly<Record<string, string>>
}

export interface StepContext {
  /** Marks what the step makes, the same each time it runs: `<change>/<step>`. */
  readonly key: string
  readonly facts: Facts
}

/** A kind of change: everything that the engine needs to draft, check, carry out, prove and undo it. */
export interface ChangeKind<Intent, Step> {
  readonly kind: string
  /** What it does, as a button says it: `Create a pool`. */
  readonly title: string
  readonly intentSchema: object
  /** What to load before planning. Must take any intent that the schema lets through. */
  readonly needs: (intent: Intent, facts?: Facts) => EstateNeeds
  /** What else to load once the first slice is known. */
  readonly needsAlso?: (estate: Estate, intent: Intent) => EstateNeeds | undefined
  /** Pure. What cannot be done is a check that says why, never an exception. */
  readonly plan: (estate: Estate, intent: Intent, now: Date) => Plan<Step>
  /** Safe to run again from the top after a kill at any point. @returns facts for the steps that follow */
  readonly runStep: (step: Step, context: StepContext, ports: ChangePorts) => Promise<Facts>
  /** Takes back what the step has made, as far as it has; safe to repeat. @returns what stands, if anything does */
  readonly undoStep: (step: Step, context: StepContext, ports: ChangePorts) => Promise<string | undefined>
  readonly prove: (intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts) => Promise<readonly Evidence[]>
  /** Systems that are read anew after each step. */
  readonly collects: (intent: Intent, estate: Estate, facts: Facts) => readonly string[]
  /** What it has set on systems once it is proven: what is stated otherwise later has been changed past it. */
  readonly settles?: (plan: Plan<Step>, facts: Facts) => readonly Settled[]
  /** The change that would reverse this one once it is proven, if there is one. */
  readonly reverse: (intent: Intent, facts: Facts) => { readonly kind: string; readonly intent: object } | undefined
}

/**
 * A kind whose intent and steps are its own affair. Written with methods, whose parameters TypeScript lets differ: what has passed a
 * kind's schema, and the steps that its plan made, are handed back to the same kind only.
 */
export interface AnyKind {
  readonly kind: string
  readonly title: string
  readonly intentSchema: object
  needs(intent: unknown, facts?: Facts): EstateNeeds
  needsAlso?(estate: Estate, intent: unknown): EstateNeeds | undefined
  plan(estate: Estate, intent: unknown, now: Date): Plan
  runStep(step: unknown, context: StepContext, ports: ChangePorts): Promise<Facts>
  undoStep(step: unknown, context: StepContext, ports: ChangePorts): Promise<string | undefined>
  prove(intent: unknown, plan: Plan, facts: Facts, ports: ChangePorts): Promise<readonly Evidence[]>
  collects(intent: unknown, estate: Estate, facts: Facts): readonly string[]
  settles?(plan: Plan, facts: Facts): readonly Settled[]
  reverse(intent: unknown, facts: Facts): { readonly kind: string; readonly intent: object } | undefined
}
