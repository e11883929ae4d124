import { v7 as uuid } from 'uuid'
import type { Plan } from '@/core/plan'
import { row, run, toJson, type Scope } from '../database'

/** Keeps a new draft; @returns its id */
export async function insertDraft(
  scope: Scope,
  draft: {
    readonly kind: string
    readonly intent: object
    readonly plan: Plan
    readonly madeBy: string
    readonly reverses?: string
  },
): Promise<string> {
  const id = uuid()
  await run(
    scope,
    `insert into changes (id, kind, state, title, intent, plan, made_by, reverses) values ($1, $2, 'draft', $3, $4::jsonb, $5::jsonb, $6, $7)`,
    [id, draft.kind, draft.plan.title, toJson(draft.intent), toJson(draft.plan), draft.madeBy, draft.reverses ?? null],
  )
  return id
}

/** Gives a draft another intent and plan; @returns false where the change is no longer a draft */
export async function reviseDraft(
  scope: Scope,
  id: string,
  intent: object,
  plan: Plan,
  differences: readonly string[] = [],
): Promise<boolean> {
  const revised = await row<{ readonly id: string }>(
    scope,
    `update changes set intent = $2::jsonb, plan = $3::jsonb, title = $4, differences = $5::jsonb, state = 'draft', revised_at = now()
     where id = $1 and state in ('draft', 'checked') returning id`,
    [id, toJson(intent), toJson(plan), plan.title, toJson(differences)],
  )
  return revised !== undefined
}

/** Forgets a draft that was never carried out; @returns false where it is none */
export async function discardDraft(scope: Scope, id: string): Promise<boolean> {
  return (
    (await row<{ readonly id: string }>(
      scope,
      `delete from changes where id = $1 and state in ('draft', 'checked') returning id`,
      [id],
    )) !== undefined
  )
}
