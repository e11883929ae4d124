import { inTransaction, row, rows, run, toJson, type Scope } from '../database'
import { queue } from './carryOut'
import type { Sequelize } from 'sequelize'

/** Since when calls of one kind have failed without a good answer between: ISO 8601 by the name of the call. */
export type Failing = Readonly<Record<string, string>>

/** A change that has given its slot back: it waits for a system's task, or for a moment. */
export interface Wait {
  readonly changeId: string
  readonly stepIndex: number
  readonly systemId: string | null
  readonly task: string | null
  readonly words: string
  readonly beganAt: Date
  readonly failing: Failing
  readonly doneRatio: number
  readonly toldAt: Date | null
}

interface WaitRow {
  readonly change_id: string
  readonly step_index: number
  readonly system_id: string | null
  readonly task: string | null
  readonly words: string
  readonly began_at: Date
  readonly failing: Failing
  readonly done_ratio: number
  readonly told_at: Date | null
}

const selected =
  'select change_id, step_index, system_id, task, words, began_at, failing, done_ratio, told_at from change_waits'
const toWait = (found: WaitRow): Wait => ({
  changeId: found.change_id,
  stepIndex: found.step_index,
  systemId: found.system_id,
  task: found.task,
  words: found.words,
  beganAt: found.began_at,
  failing: found.failing,
  doneRatio: found.done_ratio,
  toldAt: found.told_at,
})

export async function waitOf(scope: Scope, changeId: string): Promise<Wait | undefined> {
  const found = await row<WaitRow>(scope, `${selected} where change_id = $1`, [changeId])
  return found === undefined ? undefined : toWait(found)
}

/** Waits for a task; one that is waited for already keeps its beginning. */
export const waitForTask = (
  scope: Scope,
  wait: {
    readonly changeId: string
    readonly stepIndex: number
    readonly systemId: string
    readonly task: string
    readonly words: string
    readonly doneRatio: number
  },
) =>
  run(
    scope,
    `insert into change_waits as known (change_id, step_index, system_id, task, words, done_ratio) values ($1, $2, $3, $4, $5, $6)
     on conflict (change_id) do update set step_index = excluded.step_index, system_id = excluded.system_id, task = excluded.task, words = excluded.words,
       again_at = null, failing = '{}', done_ratio = excluded.done_ratio, began_at = case when known.task is not distinct from excluded.task then known.began_at else now() end`,
    [wait.changeId, wait.stepIndex, wait.systemId, wait.task, wait.words, wait.doneRatio],
  )

/** Waits for some seconds before the step is tried again. */
export const waitForLater = (
  scope: Scope,
  wait: { readonly changeId: string; readonly stepIndex: number; readonly seconds: number; readonly failing: Failing },
) =>
  run(
    scope,
    `insert into change_waits (change_id, step_index, again_at, failing) values ($1, $2, now() + make_interval(secs => $3), $4::jsonb)
     on conflict (change_id) do update set step_index = excluded.step_index, again_at = excluded.again_at, failing = excluded.failing`,
    [wait.changeId, wait.stepIndex, wait.seconds, toJson(wait.failing)],
  )

export const endWait = (scope: Scope, changeId: string) =>
  run(scope, 'delete from change_waits where change_id = $1', [changeId])

/** Lets a change go on now; what it waited for is kept until the step has looked at it. */
export const wake = (database: Sequelize, changeId: string) =>
  inTransaction(database, async scope => {
    await run(scope, 'update change_waits set again_at = now() where change_id = $1', [changeId])
    await queue(scope, changeId)
  })

/** Tasks of a system that changes wait for. */
export const waitsAt = async (scope: Scope, systemId: string) =>
  (
    await rows<WaitRow>(scope, `${selected} where system_id = $1 and task is not null and again_at is null`, [systemId])
  ).map(toWait)

export const noteWaitTold = (scope: Scope, changeId: string, doneRatio: number) =>
  run(scope, 'update change_waits set done_ratio = $2, told_at = now() where change_id = $1', [changeId, doneRatio])

/** Running changes that nothing holds up: neither a task nor a moment that is still to come. */
export const readyIds = async (scope: Scope) =>
  (
    await rows<{ readonly id: string }>(
      scope,
      `select id from changes left join change_waits on change_id = id
       where state = 'running' and (change_id is null or again_at <= now() or (task is null and again_at is null))`,
    )
  ).map(({ id }) => id)
