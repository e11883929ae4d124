import { createHash } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import type { Plan } from '@/core/plan'
import { row, toJson, type Scope } from '../database'

/** What names a plan as it was shown: SHA-256 over what is wanted and all that was planned for it. */
export const planDigest = (kind: string, intent: object, plan: Plan) =>
  createHash('sha256')
    .update(toJson([kind, intent, plan]))
    .digest('hex')

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
  await row(
    scope,
    `insert into changes (id, kind, state, title, intent, plan, plan_digest, made_by, edited_by, reverses)
     values ($1, $2, 'draft', $3, $4::jsonb, $5::jsonb, $6, $7, $7, $8)`,
    [
      id,
      draft.kind,
      draft.plan.title,
      toJson(draft.intent),
      toJson(draft.plan),
      planDigest(draft.kind, draft.intent, draft.plan),
      draft.madeBy,
      draft.reverses ?? null,
    ],
  )
  return id
}

/** A draft with another intent, or the same one planned anew. */
export interface Revision {
  readonly kind: string
  readonly intent: object
  readonly plan: Plan
  readonly differences?: readonly string[]
  /** Who edits it, and the edit that this one rests on; left out where only the plan is made anew. */
  readonly by?: { readonly name: string; readonly edit: number }
}

/** Gives a draft another intent and plan; @returns false where it is no longer a draft, or not the edit that this one rests on */
export async function reviseDraft(
  scope: Scope,
  id: string,
  { kind, intent, plan, differences = [], by }: Revision,
): Promise<boolean> {
  const revised = await row<{ readonly id: string }>(
    scope,
    `update changes set intent = $2::jsonb, plan = $3::jsonb, plan_digest = $4, title = $5, differences = $6::jsonb, state = 'draft', revised_at = now(),
       edit = edit + case when $7::text is null then 0 else 1 end, edited_by = coalesce($7, edited_by)
     where id = $1 and state in ('draft', 'checked') and ($8::int is null or edit = $8) returning id`,
    [
      id,
      toJson(intent),
      toJson(plan),
      planDigest(kind, intent, plan),
      plan.title,
      toJson(differences),
      by?.name ?? null,
      by?.edit ?? null,
    ],
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
