import { setTimeout as pause } from 'node:timers/promises'
import { WendrelError } from '@/core/errors'
import type { ChangePorts, StorageSystem } from '@/ports'

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

const pollMilliseconds = 400

/** Follows a system's task to its end, telling how far it is by the system's own count. @throws {TaskFailed} */
export async function waitForTask(
  system: StorageSystem,
  locator: string | null,
  words: string,
  ports: ChangePorts,
): Promise<void> {
  if (locator === null) return
  for (;;) {
    const task = await system.task(locator)
    if (task.state === 'failed') throw new TaskFailed(words, task.why)
    await ports.progress(task.doneRatio, words)
    if (task.state === 'done') return
    await pause(pollMilliseconds, undefined, { signal: ports.signal })
  }
}
