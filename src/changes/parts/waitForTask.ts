import { WendrelError } from '@/core/errors'
import type { ChangePorts, SystemTask } from '@/ports'

/** The system gave up the work that it had taken on. */
class TaskFailed extends WendrelError {
  readonly code = 'change.task-failed'
  constructor(words: string, why: string) {
    super({
      what: `${words} did not come to its end.`,
      why: why === '' ? 'The system gives no reason.' : `The system says: ${why}`,
      remedy: 'Look after the cause that the system names, then draft the change again.',
    })
  }
}

/** The system no longer knows the work, and what it was to do is not done. */
class TaskVanished extends WendrelError {
  readonly code = 'change.task-vanished'
  constructor(words: string) {
    super({
      what: `${words} did not come to its end.`,
      why: 'The system no longer knows the task, and what it was to do has not been done.',
      remedy: 'Look into the log of the system, then draft the change again.',
    })
  }
}

/**
 * Not an error but a place to wait: the step has looked, and the system is at work. Whoever carries out gives the slot back and runs the
 * step again, from its top, when the task has ended.
 */
export class TaskRuns extends Error {
  constructor(
    readonly systemId: string,
    readonly task: string,
    readonly words: string,
    readonly doneRatio: number,
  ) {
    super(`${words} is at work.`)
  }
}

interface Awaited {
  readonly systemId: string
  /** Null where nothing runs. */
  readonly task: string | null
  readonly words: string
  /** Whether what the task was to do is done: asked where the system no longer knows the task. */
  readonly isDone: () => Promise<boolean>
}

/** Goes on where a system's task has ended well. @throws {TaskRuns | TaskFailed | TaskVanished} */
export async function waitForTask(awaited: Awaited, ports: ChangePorts): Promise<void> {
  const { systemId, task: locator, words, isDone } = awaited
  if (locator === null || locator === '') return
  const task: SystemTask = await (await ports.of(systemId, 'tasks')).at(locator)
  if (task.state === 'failed') throw new TaskFailed(words, task.why)
  if (task.state === 'running') throw new TaskRuns(systemId, locator, words, task.doneRatio)
  if (task.state === 'gone' && !(await isDone())) throw new TaskVanished(words)
  await ports.waited(task, words)
}
