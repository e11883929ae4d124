import type { PlanCheck, ShownPlan } from '@/core/plan'
import type { Asked } from './browser'

const forecast = { baseSeconds: 2, p10Seconds: 1, p50Seconds: 2, p90Seconds: 4, boundBy: 'requests', learnedFrom: 0 }

export const sampleCheck = (more: Partial<PlanCheck> = {}): PlanCheck => ({
  rule: 'answers',
  holds: true,
  level: 'must',
  why: 'godwit answers.',
  ...more,
})

export const samplePlan = (more: Partial<ShownPlan> = {}): ShownPlan => ({
  title: 'A change',
  checks: [sampleCheck()],
  effects: [],
  oneWay: [],
  undo: { possible: true, how: 'It can be taken back.' },
  steps: [{ name: 'one', words: 'Do one thing', forecast, step: {} }],
  forecast,
  revisions: '1',
  proof: 'The system is asked.',
  ...more,
})

/** An API that plans everything alike, and keeps every draft as change c1. */
export const keeping = (plan: ShownPlan) => (asked: Asked) => ({
  body: asked.path === '/api/v1/plans' ? plan : { id: 'c1', plan },
})
