import type { Made, SystemTask } from '@/ports'
import type { Connection } from './Connection'
import { isTask } from './schemas'

const tasks = '/redfish/v1/TaskService/Tasks'
const failures = new Set(['Exception', 'Killed', 'Cancelled', 'Interrupted'])

/** How far a system's long work is. Source: DMTF Task schema; a task that is gone has been cleared away after its end. */
export async function readTask(connection: Connection, locator: string): Promise<SystemTask> {
  const task = await connection.readIfThere(locator, isTask)
  if (task === undefined) return { locator, state: 'done', doneRatio: 1, why: '' }
  const state = task.TaskState === 'Completed' ? 'done' : failures.has(task.TaskState) ? 'failed' : 'running'
  return {
    locator,
    state,
    doneRatio: state === 'done' ? 1 : Math.min(1, (task.PercentComplete ?? 0) / 100),
    why: (task.Messages ?? []).map(message => message.Message ?? '').join(' '),
  }
}

/** The latest task that made or makes a resource: how a step that was cut off finds its work again. */
export async function taskMaking(connection: Connection, locator: string): Promise<string | null> {
  const all = await connection.members(tasks, isTask)
  const own = all.filter(task => task.Links?.CreatedResources?.some(made => made['@odata.id'] === locator))
  return own.at(-1)?.['@odata.id'] ?? null
}

/** What a request for something new has led to, by the answer's status: 202 with a task, else the resource itself. */
export async function madeBy(
  connection: Connection,
  answer: { readonly status: number; readonly location: string | null },
): Promise<Made> {
  if (answer.status !== 202 || answer.location === null) return { locator: answer.location ?? '', task: null }
  const task = await connection.readIfThere(answer.location, isTask)
  return { locator: task?.Links?.CreatedResources?.[0]?.['@odata.id'] ?? '', task: answer.location }
}
