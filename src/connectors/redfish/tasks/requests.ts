import { DateTime } from 'luxon'
import { RequestRefused, type Made, type SystemTask } from '@/ports'
import type { Answered } from '../answers'
import type { Connection } from '../Connection'
import type { Offer } from '../Reach'
import { unlessGone } from '../unlessGone'
import { isTask } from './schema'

const failures = new Set(['Exception', 'Killed', 'Cancelled', 'Interrupted'])

type Looked = Pick<Answered, 'body' | 'status'> & { readonly why?: string }

const unsaid = { startedAt: null, endedAt: null }
/** A time that a system states, as an instant; null where it states none that can be read. */
export const instant = (stated: string | null | undefined) => {
  const at = DateTime.fromISO(stated ?? '', { zone: 'utc' })
  return at.isValid ? at.toISO() : null
}

export const tasks: Offer<'tasks'> = ({ connection }) => ({
  at: locator => readTask(connection, locator),
  async stop(locator) {
    const { state } = await readTask(connection, locator)
    if (state !== 'running') return
    await unlessGone(async () => {
      await connection.change('DELETE', locator)
    })
  },
})

/**
 * How far a system's long work is, asked at its task or at its task monitor, whichever the system has named. A task that is gone has
 * been cleared away: whether its work is done is seen by what it was to make, not by its absence.
 * Sources: DMTF Task schema; DSP0266, asynchronous operations (a monitor answers 202 until the work has ended).
 */
export async function readTask(connection: Connection, locator: string): Promise<SystemTask> {
  const looked: Looked = await connection.look(locator).catch((cause: unknown): Looked => {
    if (!(cause instanceof RequestRefused)) throw cause
    if (cause.status === 404 || cause.status === 410) return { body: undefined, status: 404 }
    // A monitor whose work has failed answers as the request would have: with its refusal.
    if (cause.status >= 400 && cause.status < 500 && cause.status !== 401 && cause.status !== 429)
      return { body: undefined, status: cause.status, why: cause.why }
    throw cause
  })
  const { body, status, why = '' } = looked
  if (status === 404) return { locator, state: 'gone', doneRatio: 0, why: '', ...unsaid }
  if (status >= 400) return { locator, state: 'failed', doneRatio: 0, why, ...unsaid }
  if (!isTask(body))
    return {
      locator,
      state: status === 202 ? 'running' : 'done',
      doneRatio: status === 202 ? 0 : 1,
      why: '',
      ...unsaid,
    }
  const state = body.TaskState === 'Completed' ? 'done' : failures.has(body.TaskState) ? 'failed' : 'running'
  return {
    locator,
    state,
    doneRatio: state === 'done' ? 1 : Math.min(1, Math.max(0, (body.PercentComplete ?? 0) / 100)),
    why: (body.Messages ?? []).map(message => message.Message ?? '').join(' '),
    startedAt: instant(body.StartTime),
    endedAt: state === 'running' ? null : instant(body.EndTime),
  }
}

/** The latest task that made or makes a resource: how a step that was cut off finds its work again. */
export async function taskMaking(
  connection: Connection,
  tasks: string | undefined,
  locator: string,
): Promise<string | null> {
  if (tasks === undefined) return null
  const all = await connection.members(tasks, isTask)
  const own = all.filter(task => task.Links?.CreatedResources?.some(made => made['@odata.id'] === locator))
  return own.at(-1)?.['@odata.id'] ?? null
}

/**
 * Where the long work of an answer is looked at: at its task, where the answer states it, since a task says when it began and how far it
 * is; else at the monitor that every such answer names. Source: DSP0266, asynchronous operations.
 */
export const taskIn = ({ body, location }: Answered): string | null => (isTask(body) ? body['@odata.id'] : location)

/** What a request for something new has led to, by the answer's status: 202 with a task, else the resource itself. */
export async function madeBy(connection: Connection, answer: Answered): Promise<Made> {
  const task = taskIn(answer)
  if (answer.status !== 202 || task === null) return { locator: answer.location ?? '', task: null }
  const body = isTask(answer.body) ? answer.body : (await connection.look(task)).body
  const created = isTask(body) ? body.Links?.CreatedResources?.[0]?.['@odata.id'] : undefined
  return { locator: created ?? '', task }
}
