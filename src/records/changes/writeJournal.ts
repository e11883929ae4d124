import type { ChangeState } from '@/core/plan'
import type { CodedRefusal } from '@/core/errors'
import { run, toJson, type Scope } from '../database'
import type { EvidenceEntry, JournalEntry } from '@/core/views'

/** Adds a mark to a change's journal. */
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
  },
): Promise<void> {
  await run(
    scope,
    'insert into change_journal (change_id, step_index, event, estate_at, done_ratio, words, facts) values ($1, $2, $3, $4, $5, $6, $7::jsonb)',
    [
      changeId,
      entry.stepIndex,
      entry.event,
      entry.estateAt.toISOString(),
      entry.doneRatio ?? null,
      entry.words ?? '',
      toJson(entry.facts ?? {}),
    ],
  )
}

export async function keepEvidence(scope: Scope, changeId: string, entry: Omit<EvidenceEntry, 'at'>): Promise<void> {
  await run(scope, 'insert into evidence (change_id, claim, holds, measured) values ($1, $2, $3, $4::jsonb)', [
    changeId,
    entry.claim,
    entry.holds,
    toJson(entry.measured),
  ])
}

export interface ChangeEnd {
  readonly state: Exclude<ChangeState, 'draft' | 'checked' | 'running'>
  readonly estateAt: Date
  readonly facts: Readonly<Record<string, unknown>>
  readonly refusal?: CodedRefusal
  readonly stands?: string
}

/** Ends a running change: its state, what stands, and its claims given back. A stopped change keeps its claims. */
export async function endChange(scope: Required<Scope>, changeId: string, end: ChangeEnd): Promise<void> {
  await run(
    scope,
    'update changes set state = $2, ended_at = now(), ended_estate_at = $3, facts = $4::jsonb, refusal = $5::jsonb, stands = $6, is_stop_wanted = false where id = $1',
    [
      changeId,
      end.state,
      end.estateAt.toISOString(),
      toJson(end.facts),
      end.refusal === undefined ? null : toJson(end.refusal),
      end.stands ?? null,
    ],
  )
  if (end.state !== 'stopped') await run(scope, 'delete from claims where change_id = $1', [changeId])
}

/** Keeps how long a proven change took beside its forecast, from which the next one of its kind learns. */
export async function keepOutcome(scope: Scope, changeId: string): Promise<void> {
  await run(
    scope,
    `insert into forecast_outcomes (change_id, kind, base_seconds, p10_seconds, p50_seconds, p90_seconds, actual_seconds)
     select id, kind, (plan #>> '{forecast,baseSeconds}')::float8, (plan #>> '{forecast,p10Seconds}')::float8, (plan #>> '{forecast,p50Seconds}')::float8, (plan #>> '{forecast,p90Seconds}')::float8,
       -- what waits for requests takes the wall's time, what waits for drives the systems' own
       case plan #>> '{forecast,boundBy}' when 'requests' then extract(epoch from ended_at - carried_out_at)
         else extract(epoch from ended_estate_at - carried_out_estate_at) end
     from changes where id = $1 and state = 'proven' on conflict (change_id) do nothing`,
    [changeId],
  )
}

/** Puts a running change back to a draft with a new plan, before its first step: the estate was no longer what the plan rested on. */
export async function backToDraft(
  scope: Required<Scope>,
  changeId: string,
  plan: object,
  differences: readonly string[],
): Promise<void> {
  await run(
    scope,
    `update changes set state = 'draft', plan = $2::jsonb, differences = $3::jsonb, carried_out_at = null, carried_out_estate_at = null where id = $1`,
    [changeId, toJson(plan), toJson(differences)],
  )
  await run(scope, 'delete from claims where change_id = $1', [changeId])
}
