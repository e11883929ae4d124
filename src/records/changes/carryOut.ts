import type { Plan } from '@/core/plan'
import { row, rows, run, toJson, type Scope } from '../database'

export const carryOutTask = 'carry-out-change'
const carryOutLock = 7_261_555

/** Lets one carrying out at a time be decided, so that of two plans that conflict exactly one finds the estate as it was. */
export const decideAlone = (scope: Required<Scope>) => run(scope, 'select pg_advisory_xact_lock($1)', [carryOutLock])

/** Which of the objects that a plan will touch are held by a running change, with that change's title. */
export async function heldBy(
  scope: Scope,
  claims: readonly string[],
  changeId: string,
): Promise<{ readonly claim: string; readonly title: string; readonly number: number }[]> {
  return rows(
    scope,
    'select claim, title, number from claims join changes on changes.id = change_id where claim = any($1) and change_id <> $2',
    [claims, changeId],
  )
}

/** Sets a draft running: claims its objects and queues it. To be called in a transaction that has decided alone. */
export async function setRunning(scope: Required<Scope>, changeId: string, plan: Plan, estateNow: Date): Promise<void> {
  await run(
    scope,
    `update changes set state = 'running', plan = $2::jsonb, title = $3, differences = '[]', carried_out_at = now(), carried_out_estate_at = $4,
       refusal = null, stands = null, is_stop_wanted = false, is_undo_wanted = false where id = $1`,
    [changeId, toJson(plan), plan.title, estateNow.toISOString()],
  )
  await claimAgain(scope, changeId, plan)
  await queue(scope, changeId)
}

/** Claims the objects of a plan for a change. */
export const claimAgain = (scope: Required<Scope>, changeId: string, plan: Plan) =>
  run(
    scope,
    'insert into claims (claim, change_id) select distinct unnest($1::text[]), $2::uuid on conflict do nothing',
    [plan.claims, changeId],
  )

/** Queues a change for whichever worker is free; a change that is queued already is not queued twice. */
export const queue = (scope: Scope, changeId: string) =>
  run(
    scope,
    `select graphile_worker.add_job($1, json_build_object('changeId', $2::text), job_key => $3, max_attempts => 1000)`,
    [carryOutTask, changeId, `change:${changeId}`],
  )

/** Asks a running change to stop at its next safe point, which is now for one that waits. */
export async function wantStop(scope: Required<Scope>, id: string): Promise<boolean> {
  const found = await row<{ readonly id: string }>(
    scope,
    `update changes set is_stop_wanted = true where id = $1 and state = 'running' returning id`,
    [id],
  )
  if (found === undefined) return false
  await run(scope, 'update change_waits set again_at = now() where change_id = $1', [id])
  await queue(scope, id)
  return true
}

/** Lets a stopped change go on, or be undone. */
export async function wantResume(scope: Required<Scope>, id: string, isUndoWanted: boolean): Promise<boolean> {
  const found = await row<{ readonly id: string }>(
    scope,
    `update changes set state = 'running', is_stop_wanted = false, is_undo_wanted = $2, ended_at = null, ended_estate_at = null where id = $1 and state in ('stopped', 'unproven') returning id`,
    [id, isUndoWanted],
  )
  if (found !== undefined) await queue(scope, id)
  return found !== undefined
}

/**
 * Volumes whose holding has ended by the estate's time, that stand on systems which answer, that no change holds, and whose deletion
 * was not tried within the last hour: one that cannot be deleted now must not hold up the others.
 */
export const heldVolumesPast = (scope: Scope, estateNow: Date, limit: number) =>
  rows<{ readonly id: string; readonly name: string }>(
    scope,
    `select v.id, v.name from volumes v join systems s on s.id = v.system_id
     where v.state = 'holding' and v.holding_until < $1 and v.missing_since is null and s.reach = 'answering'
       and not exists (select 1 from claims where claim = v.id::text)
       and not exists (select 1 from changes c where c.intent ? 'volumeId' and c.intent ->> 'volumeId' = v.id::text and c.kind = 'delete-held-volume'
         and (c.state in ('running', 'stopped') or c.made_at > now() - interval '1 hour'))
     order by v.holding_until limit $2`,
    [estateNow.toISOString(), limit],
  )

/** Titles of running or stopped changes that rest on a system, other than one change itself. */
export const atWorkOn = (scope: Scope, systemIds: readonly string[], changeId: string | null) =>
  rows<{ readonly system_id: string; readonly title: string; readonly number: number }>(
    scope,
    `select distinct r ->> 'id' as system_id, title, number from changes, jsonb_array_elements(plan -> 'reads') r
     where state in ('running', 'stopped') and id is distinct from $2::uuid and r ->> 'kind' = 'system' and r ->> 'id' = any($1)`,
    [systemIds, changeId],
  )
