import { fn } from 'sequelize'
import { run, type Scope } from '../database'
import { inside } from '../model'
import { waitModel } from './models'

export const carryOutTask = 'carry-out-change'

/** Queues a change for whichever worker is free; a change that is queued already is not queued twice. */
export const queue = (scope: Scope, changeId: string) =>
  run(
    scope,
    `select graphile_worker.add_job($1, json_build_object('changeId', $2::text), job_key => $3, max_attempts => 1000)`,
    [carryOutTask, changeId, `change:${changeId}`],
  )

/** Has what a change waits for looked at now; what it waited for is kept until the step has looked at it. */
export async function hasten(scope: Required<Scope>, changeId: string): Promise<void> {
  await waitModel(scope.database).update({ againAt: fn('now') }, { where: { changeId }, ...inside(scope) })
  await queue(scope, changeId)
}
