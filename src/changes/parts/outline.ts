import type { Estate } from '@/core/estate'
import type { Effect, ObjectRead, Plan, PlanCheck, PlannedStep, Sketch } from '@/core/plan'
import { forecastBefore, inSequence, type SharedPart } from '@/core/transfer'
import { unclaimed } from './checks'

/** A step as a plan states it. */
export interface Outlined<Step> {
  readonly step: Step & { readonly step: string }
  readonly words: string
  /** What is spent besides moving bytes. */
  readonly seconds: number
  readonly bytes?: bigint
  readonly parts?: readonly SharedPart[]
}

interface Outline<Step> {
  readonly title: string
  readonly checks: readonly PlanCheck[]
  readonly effects?: readonly Effect[]
  readonly oneWay?: readonly string[]
  readonly undo: Plan['undo']
  readonly steps: readonly Outlined<Step>[]
  readonly reads: readonly ObjectRead[]
  readonly claims: readonly string[]
  readonly proof: string
  readonly sketch?: Sketch
  readonly suggestions?: Readonly<Record<string, string>>
}

/** A plan from its parts: forecasts from what each step moves, the whole in sequence, and that no other change is at work on the same. */
export function outlined<Step>(estate: Estate, outline: Outline<Step>): Plan<Step> {
  const steps: PlannedStep<Step>[] = outline.steps.map(({ step, words, seconds, bytes = 0n, parts = [] }) => ({
    name: step.step,
    words,
    forecast: forecastBefore(bytes, parts, seconds, estate.pastMisses),
    step,
  }))
  return {
    title: outline.title,
    checks: [...outline.checks, unclaimed(estate, outline.claims)],
    effects: outline.effects ?? [],
    oneWay: outline.oneWay ?? [],
    undo: outline.undo,
    steps,
    forecast: inSequence(steps.map(step => step.forecast)),
    reads: outline.reads,
    claims: outline.claims,
    proof: outline.proof,
    ...(outline.sketch === undefined ? {} : { sketch: outline.sketch }),
    ...(outline.suggestions === undefined ? {} : { suggestions: outline.suggestions }),
  }
}
