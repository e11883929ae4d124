import { setTimeout as pause } from 'node:timers/promises'
import { RequestRefused } from '@/connectors/redfish'
import { refusalOf } from '@/core/errors'

const patienceMilliseconds = 10 * 60_000
const longestPauseMilliseconds = 15_000
const passing = new Set(['connection.not-reached', 'connection.answer-late', 'connection.unreadable-answer'])

/** Whether what went wrong may be over in a while: the system does not answer, is busy, or answers nonsense. */
const isPassing = (cause: unknown) =>
  passing.has(refusalOf(cause).code) ||
  (cause instanceof RequestRefused && (cause.status >= 500 || cause.status === 429))

/** Whether it is the database or this process that failed, not the change: then the change is left as it is, to be taken up again. */
export function isOurs(cause: unknown): boolean {
  const name = cause instanceof Error ? cause.name : ''
  return name.startsWith('Sequelize') || name === 'AbortError' || refusalOf(cause).code === 'worker.hold-lost'
}

/**
 * Tries again what fails in passing, with growing pauses, for ten minutes. The work must be safe to repeat.
 * @param told is told of every failure that is waited out; may throw to give up
 */
export async function withPatience<T>(
  work: () => Promise<T>,
  told: (cause: unknown) => Promise<void>,
  signal: AbortSignal,
): Promise<T> {
  const until = Date.now() + patienceMilliseconds
  for (let attempt = 0; ; attempt += 1) {
    try {
      return await work()
    } catch (cause) {
      if (!isPassing(cause) || signal.aborted || Date.now() > until) throw cause
      await told(cause)
      await pause(Math.min(longestPauseMilliseconds, 500 * 2 ** attempt), undefined, { signal })
    }
  }
}
