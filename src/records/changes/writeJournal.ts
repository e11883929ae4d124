import type { ChangeState, Plan } from '@/core/plan'
import type { CodedRefusal } from '@/core/errors'
import { row, run, toJson, type Scope } from '../database'
import { planDigest } from './writeDrafts'
import type { EvidenceEntry, JournalEntry } from '@/core/views'

/** Adds a mark to a change's journal; a mark that can be made once only is not made again by a step that runs again. */
export async function mark(
  scope: Scope,
  changeId: string,
  entry: {
    readonly stepIndex: number
    readonly event: JournalEntry['event']
    readonly estateAt: Date
    readonly doneRatio?: number
    readonly words?: string
    readonly facts?: object
    /** Of a wait for a system's work: how long it was waited for by the wall, and how long it took by the system's own clock. */
    readonly waited?: { readonly wallSeconds: number; readonly seconds: number }
  },
): Promise<void> {
  await run(
    scope,
    `insert into change_journal (change_id, step_index, event, estate_at, done_ratio, words, facts, wait_wall_seconds, waited_seconds)
     values ($1, $2, $3, $4, $5, $6, $7::jsonb, $8, $9) on conflict do nothing`,
    [
      changeId,
      entry.stepIndex,
      entry.event,
      entry.estateAt.toISOString(),
      entry.doneRatio ?? null,
      entry.words ?? '',
      toJson(entry.facts ?? {}),
      entry.waited?.wallSeconds ?? null,
      entry.waited?.seconds ?? null,
    ],
  )
}

/** Keeps why a change fails before what it has begun is taken back. */
export const noteRefusal = (scope: Scope, changeId: string, refusal: CodedRefusal) =>
  run(scope, 'update changes set refusal = $2::jsonb where id = $1', [changeId, toJson(refusal)])

/** Counts a try to prove a change. @returns its number */
async function nextAttempt(scope: Scope, changeId: string): Promise<number> {
  const found = await row<{ readonly attempt: number }>(
    scope,
    'update changes set attempt = attempt + 1 where id = $1 returning attempt',
    [changeId],
  )
  return found?.attempt ?? 1
}

export interface ChangeEnd {
  readonly state: Exclude<ChangeState, 'draft' | 'checked' | 'running'>
  readonly estateAt: Date
  readonly facts: Readonly<Record<string, unknown>>
  readonly refusal?: CodedRefusal
  readonly stands?: string
  readonly evidence?: readonly Omit<EvidenceEntry, 'at' | 'attempt'>[]
}

/**
 * Ends a running change in one piece: its evidence, its state, what stands, how long it took, and its claims given back. A stopped
 * change keeps its claims.
 *
 * How long it took: the wall's time for what waited for requests, and in place of each wait for a system's work the time that the
 * system itself says it took; as the forecast counts it.
 */
export async function endChange(scope: Required<Scope>, changeId: string, end: ChangeEnd): Promise<void> {
  const evidence = end.evidence ?? []
  const attempt = evidence.length === 0 ? 0 : await nextAttempt(scope, changeId)
  for (const entry of evidence)
    await run(
      scope,
      'insert into evidence (change_id, claim, holds, measured, attempt) values ($1, $2, $3, $4::jsonb, $5)',
      [changeId, entry.claim, entry.holds, toJson(entry.measured), attempt],
    )
  await run(
    scope,
    `update changes set state = $2, ended_at = now(), ended_estate_at = $3, facts = $4::jsonb, refusal = $5::jsonb, stands = $6, is_stop_wanted = false,
       took_seconds = greatest(0, extract(epoch from now() - carried_out_at)
         + coalesce((select sum(waited_seconds - wait_wall_seconds) from change_journal where change_id = $1 and event = 'waited'), 0))
     where id = $1`,
    [
      changeId,
      end.state,
      end.estateAt.toISOString(),
      toJson(end.facts),
      end.refusal === undefined ? null : toJson(end.refusal),
      end.stands ?? null,
    ],
  )
  await run(scope, 'delete from change_waits where change_id = $1', [changeId])
  if (end.state !== 'stopped') await run(scope, 'delete from claims where change_id = $1', [changeId])
  // A change that was stopped meanwhile, or proven at the second try only, says nothing of how long its kind takes.
  if (end.state === 'proven' && attempt === 1) await keepOutcome(scope, changeId)
}

/** Keeps how long a proven change took beside its forecast, from which the next one of its kind learns. */
const keepOutcome = (scope: Scope, changeId: string) =>
  run(
    scope,
    `insert into forecast_outcomes (change_id, kind, base_seconds, p10_seconds, p50_seconds, p90_seconds, actual_seconds)
     select id, kind, (plan #>> '{forecast,baseSeconds}')::float8, (plan #>> '{forecast,p10Seconds}')::float8, (plan #>> '{forecast,p50Seconds}')::float8, (plan #>> '{forecast,p90Seconds}')::float8,
       took_seconds from changes where id = $1 on conflict (change_id) do nothing`,
    [changeId],
  )

/** Puts a running change back to a draft with a new plan, before its first step: the estate was no longer what the plan rested on. */
export async function backToDraft(
  scope: Required<Scope>,
  change: { readonly id: string; readonly kind: string; readonly intent: object },
  plan: Plan,
  differences: readonly string[],
): Promise<void> {
  const changeId = change.id
  await run(
    scope,
    `update changes set state = 'draft', plan = $2::jsonb, plan_digest = $3, differences = $4::jsonb, carried_out_at = null, carried_out_estate_at = null where id = $1`,
    [changeId, toJson(plan), planDigest(change.kind, change.intent, plan), toJson(differences)],
  )
  await run(scope, 'delete from claims where change_id = $1', [changeId])
}
