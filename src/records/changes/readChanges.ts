import type { ChangeState, Plan } from '@/core/plan'
import type { CodedRefusal } from '@/core/errors'
import { row, rows, type Scope } from '../database'
import type { ChangeRecord, EvidenceEntry, JournalEntry } from '@/core/views'

interface ChangeRow {
  readonly id: string
  readonly number: number
  readonly kind: string
  readonly state: ChangeState
  readonly title: string
  readonly intent: Record<string, unknown>
  readonly plan: Plan
  readonly differences: string[]
  readonly plan_digest: string
  readonly edit: number
  readonly edited_by: string
  readonly made_by: string
  readonly made_at: Date
  readonly carried_out_at: Date | null
  readonly carried_out_estate_at: Date | null
  readonly ended_at: Date | null
  readonly ended_estate_at: Date | null
  readonly is_stop_wanted: boolean
  readonly is_undo_wanted: boolean
  readonly facts: Record<string, unknown>
  readonly refusal: CodedRefusal | null
  readonly stands: string | null
  readonly reverses: string | null
  readonly took_seconds: number | null
}

const columns = `id, number, kind, state, title, intent, plan, plan_digest, edit, edited_by, differences, made_by, made_at, carried_out_at, carried_out_estate_at,
  ended_at, ended_estate_at, is_stop_wanted, is_undo_wanted, facts, refusal, stands, reverses, took_seconds`
const instant = (date: Date | null) => date?.toISOString() ?? null

const toChange = (found: ChangeRow): ChangeRecord => ({
  id: found.id,
  number: found.number,
  kind: found.kind,
  state: found.state,
  title: found.title,
  intent: found.intent,
  plan: found.plan,
  differences: found.differences,
  planDigest: found.plan_digest,
  edit: found.edit,
  editedBy: found.edited_by,
  madeBy: found.made_by,
  madeAt: found.made_at.toISOString(),
  carriedOutAt: instant(found.carried_out_at),
  carriedOutEstateAt: instant(found.carried_out_estate_at),
  endedAt: instant(found.ended_at),
  endedEstateAt: instant(found.ended_estate_at),
  isStopWanted: found.is_stop_wanted,
  isUndoWanted: found.is_undo_wanted,
  facts: found.facts,
  refusal: found.refusal,
  stands: found.stands,
  reverses: found.reverses,
  tookSeconds: found.took_seconds,
})

export async function changeById(scope: Scope, id: string, lock = false): Promise<ChangeRecord | undefined> {
  const found = await row<ChangeRow>(
    scope,
    `select ${columns} from changes where id = $1${lock ? ' for update' : ''}`,
    [id],
  )
  return found === undefined ? undefined : toChange(found)
}

/** The latest draft of a kind that somebody has left within a week, about all of some objects. */
export async function leftDraft(
  scope: Scope,
  kind: string,
  editedBy: string,
  objectIds: readonly string[],
): Promise<ChangeRecord | undefined> {
  const found = await row<ChangeRow>(
    scope,
    `select ${columns} from changes where state in ('draft', 'checked') and kind = $1 and edited_by = $2 and revised_at > now() - interval '7 days'
       and (select bool_and(strpos(intent::text, id) > 0) from unnest($3::text[]) id) is not false
     order by revised_at desc limit 1`,
    [kind, editedBy, objectIds],
  )
  return found === undefined ? undefined : toChange(found)
}

/** The latest changes, newest first. @param before only those with a lower number, for the next page */
export async function latestChanges(
  scope: Scope,
  limit: number,
  options: { readonly states?: readonly ChangeState[]; readonly before?: number } = {},
): Promise<ChangeRecord[]> {
  const found = await rows<ChangeRow>(
    scope,
    `select ${columns} from changes where ($1::text[] is null or state = any($1)) and number < $2 order by number desc limit $3`,
    [options.states ?? null, options.before ?? 2_147_483_647, limit],
  )
  return found.map(toChange)
}

export async function journalOf(scope: Scope, changeId: string): Promise<JournalEntry[]> {
  const found = await rows<{
    id: string
    step_index: number
    event: JournalEntry['event']
    at: Date
    estate_at: Date
    done_ratio: number | null
    words: string
    facts: Record<string, unknown>
  }>(
    scope,
    'select id, step_index, event, at, estate_at, done_ratio, words, facts from change_journal where change_id = $1 order by id',
    [changeId],
  )
  return found.map(each => ({
    id: Number(each.id),
    stepIndex: each.step_index,
    event: each.event,
    at: each.at.toISOString(),
    estateAt: each.estate_at.toISOString(),
    doneRatio: each.done_ratio,
    words: each.words,
    facts: each.facts,
  }))
}

export async function evidenceOf(scope: Scope, changeId: string): Promise<EvidenceEntry[]> {
  const found = await rows<{
    claim: string
    holds: boolean
    measured: Record<string, string>
    at: Date
    attempt: number
  }>(scope, 'select claim, holds, measured, at, attempt from evidence where change_id = $1 order by id', [changeId])
  return found.map(each => ({ ...each, at: each.at.toISOString() }))
}

export async function runningCount(scope: Scope): Promise<number> {
  return (
    (await row<{ readonly count: number }>(scope, `select count(*)::int as count from changes where state = 'running'`))
      ?.count ?? 0
  )
}

/** Forecasts of ended changes beside what happened, latest last; for the hit rate. */
export async function forecastOutcomes(
  scope: Scope,
  limit = 500,
): Promise<
  { readonly kind: string; readonly p10: number; readonly p50: number; readonly p90: number; readonly actual: number }[]
> {
  return rows(
    scope,
    'select kind, p10_seconds as p10, p50_seconds as p50, p90_seconds as p90, actual_seconds as actual from forecast_outcomes order by ended_at desc limit $1',
    [limit],
  )
}
