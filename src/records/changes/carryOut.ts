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
       is_stop_wanted = false, is_undo_wanted = false where id = $1`,
    [changeId, toJson(plan), plan.title, estateNow.toISOString()],
  )
  await run(scope, 'insert into claims (claim, change_id) select unnest($1::text[]), $2', [plan.claims, changeId])
  await queue(scope, changeId)
}

/** Queues a change for whichever worker is free; a change that is queued already is not queued twice. */
export const queue = (scope: Scope, changeId: string) =>
  run(
    scope,
    `select graphile_worker.add_job($1, json_build_object('changeId', $2::text), job_key => $3, max_attempts => 1000)`,
    [carryOutTask, changeId, `change:${changeId}`],
  )

/** Asks a running change to stop at its next safe point. */
export async function wantStop(scope: Scope, id: string): Promise<boolean> {
  return (
    (await row<{ readonly id: string }>(
      scope,
      `update changes set is_stop_wanted = true where id = $1 and state = 'running' returning id`,
      [id],
    )) !== undefined
  )
}

/** Lets a stopped change go on, or be undone. */
export async function wantResume(scope: Required<Scope>, id: string, isUndoWanted: boolean): Promise<boolean> {
  const found = await row<{ readonly id: string }>(
    scope,
    `update changes set state = 'running', is_stop_wanted = false, is_undo_wanted = $2, ended_at = null, ended_estate_at = null where id = $1 and state = 'stopped' returning id`,
    [id, isUndoWanted],
  )
  if (found !== undefined) await queue(scope, id)
  return found !== undefined
}

/** Changes that are running by the records; a worker that has started makes sure that each is queued. */
export const runningIds = async (scope: Scope) =>
  (await rows<{ readonly id: string }>(scope, `select id from changes where state = 'running'`)).map(({ id }) => id)

/** Volumes whose holding has ended by the estate's time and that no change holds. */
export const heldVolumesPast = (scope: Scope, estateNow: Date, limit: number) =>
  rows<{ readonly id: string }>(
    scope,
    `select id from volumes where state = 'holding' and holding_until < $1 and not exists (select 1 from claims where claim = volumes.id::text) order by holding_until limit $2`,
    [estateNow.toISOString(), limit],
  )
