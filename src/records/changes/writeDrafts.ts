import { createHash } from 'node:crypto'
import { QueryTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { Plan } from '@/core/plan'
import { toJson, type Scope } from '../database'
import { inside } from '../model'
import { changeModel } from './models'

/** What names a plan as it was shown: SHA-256 over what is wanted and all that was planned for it. */
export const planDigest = (kind: string, intent: object, plan: Plan) =>
  digestOf(toJson(kind), toJson(intent), toJson(plan))

/** Over the JSON list of all three, each as it stands there. */
const digestOf = (...parts: readonly string[]) =>
  createHash('sha256')
    .update(`[${parts.join(',')}]`)
    .digest('hex')

/** What is kept of an intent and its plan. */
function planned(kind: string, intent: object, plan: Plan) {
  // Plain JSON both: bytes are decimal text in them.
  const [intentText, planText] = [toJson(intent), toJson(plan)]
  return {
    title: plan.title,
    intent: intent as Record<string, unknown>,
    plan,
    planDigest: digestOf(toJson(kind), intentText, planText),
  }
}

/** Keeps a new draft; @returns its id */
export async function insertDraft(
  scope: Scope,
  {
    kind,
    intent,
    plan,
    madeBy,
    reverses,
  }: {
    readonly kind: string
    readonly intent: object
    readonly plan: Plan
    readonly madeBy: string
    readonly reverses?: string
  },
): Promise<string> {
  const id = uuid()
  await changeModel(scope.database).create(
    {
      id,
      kind,
      state: 'draft',
      ...planned(kind, intent, plan),
      madeBy,
      editedBy: madeBy,
      ...(reverses === undefined ? {} : { reverses }),
    },
    { returning: false, ...inside(scope) },
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
  // By hand: through the model the plan of a large cluster is copied and written out as text once more, which takes milliseconds.
  const [intentText, planText] = [toJson(intent), toJson(plan)]
  const edited = by === undefined ? '' : ', edit = edit + 1, edited_by = $7'
  const revised = await scope.database.query(
    `update changes set title = $2, intent = $3::jsonb, plan = $4::jsonb, plan_digest = $5, differences = $6::jsonb, state = 'draft',
       revised_at = now()${edited}
     where id = $1 and state in ('draft', 'checked')${by === undefined ? '' : ' and edit = $8'} returning id`,
    {
      type: QueryTypes.SELECT,
      bind: [
        ...[id, plan.title, intentText, planText, digestOf(toJson(kind), intentText, planText), toJson(differences)],
        ...(by === undefined ? [] : [by.name, by.edit]),
      ],
      transaction: scope.transaction ?? null,
    },
  )
  return revised.length > 0
}

const drafts = ['draft', 'checked'] as const

/** Forgets a draft that was never carried out; @returns false where it is none */
export const discardDraft = async (scope: Scope, id: string): Promise<boolean> =>
  (await changeModel(scope.database).destroy({ where: { id, state: [...drafts] }, ...inside(scope) })) > 0
