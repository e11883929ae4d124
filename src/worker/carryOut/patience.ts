import { setTimeout as pause } from 'node:timers/promises'
import { refusalOf } from '@/core/errors'
import { RequestRefused } from '@/ports'
import { isConflict, isDatabaseAway } from '@/records'
import type { Failing } from '@/records/changes'

const patienceMilliseconds = 10 * 60_000
const longestPauseSeconds = 30
const triesAtOnce = 3
const passing = new Set([
  'connection.not-reached',
  'connection.answer-late',
  'connection.unreadable-answer',
  'connection.directory-silent',
])

/** Whether what went wrong may be over in a while: the system does not answer, is busy, or answers nonsense. */
const isPassing = (cause: unknown) =>
  passing.has(refusalOf(cause).code) ||
  (cause instanceof RequestRefused && (cause.status >= 500 || cause.status === 429))

/**
 * Whether it is the database's connection or this process that failed, not the change: then the change is left as it is, to be taken up
 * again. Every other error of the database is a fault that no waiting mends.
 */
export const isOurs = (cause: unknown): boolean =>
  isDatabaseAway(cause) ||
  isConflict(cause) ||
  (cause instanceof Error && cause.name === 'AbortError') ||
  refusalOf(cause).code === 'worker.hold-lost'

/** What a call has done since it last went well. */
export class Patience {
  #failing: Record<string, string>
  #latest = ''

  /** @param failing as an earlier run of the step has left it */
  constructor(failing: Failing) {
    this.#failing = { ...failing }
  }

  get failing(): Failing {
    return this.#failing
  }

  /**
   * A system, host or node whose calls are counted: each good answer restarts the patience with calls of its kind.
   * @param ended is told of the end of each call, however it ends
   */
  counted<T extends object>(target: T, name: string, ended?: () => void): T {
    return new Proxy(target, {
      get: (of, member, receiver) => {
        const value: unknown = Reflect.get(of, member, receiver)
        if (typeof value === 'object' && value !== null) return this.counted(value, `${name}.${String(member)}`, ended)
        if (typeof value !== 'function') return value
        return async (...given: unknown[]) => {
          const call = `${name}.${String(member)}`
          try {
            const answer: unknown = await Reflect.apply(value, of, given)
            delete this.#failing[call]
            return answer
          } catch (cause) {
            if (isPassing(cause)) {
              this.#failing[call] ??= new Date().toISOString()
              this.#latest = call
            }
            throw cause
          } finally {
            ended?.()
          }
        }
      },
    })
  }

  /** Whether what failed has failed for so long that it is given up. */
  isOver(now: Date): boolean {
    const since = Date.parse(this.#failing[this.#latest] ?? now.toISOString())
    return now.getTime() - since > patienceMilliseconds
  }
}

/** The step cannot go on now; it is run again, from its top, when some time has passed. */
export class Later extends Error {
  constructor(
    override readonly cause: unknown,
    readonly seconds: number,
  ) {
    super('The step is tried again later.')
  }
}

/**
 * Tries again what fails in passing: a few times at once, then later, so that a system that does not answer holds no slot. The work must
 * be safe to repeat.
 * @param told is told of every failure that is waited out; may throw to give up
 * @throws {Later} and what the work throws
 */
export async function withPatience<T>(
  work: () => Promise<T>,
  patience: Patience,
  told: (cause: unknown) => Promise<void>,
  signal: AbortSignal,
): Promise<T> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await work()
    } catch (cause) {
      if (!isPassing(cause) || signal.aborted || patience.isOver(new Date())) throw cause
      await told(cause)
      if (attempt === triesAtOnce) throw new Later(cause, pauseSeconds(patience))
      await pause(400 * 2 ** (attempt - 1), undefined, { signal })
    }
  }
}

/** The longer it has failed, the longer the pause: a fifth of that time, from two seconds to half a minute. */
function pauseSeconds({ failing }: Patience): number {
  const since = Math.min(Date.now(), ...Object.values(failing).map(Date.parse))
  return Math.min(longestPauseSeconds, Math.max(2, (Date.now() - since) / 5000))
}
