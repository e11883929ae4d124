import { setTimeout as pause } from 'node:timers/promises'

/**
 * Does something again and again until it is stopped, with a pause after each time. What goes wrong is told and does not end it: a
 * database that is away for an hour is found again when it is back.
 */
export async function every(
  milliseconds: number,
  stop: AbortSignal,
  work: () => Promise<void>,
  told: (cause: unknown) => void,
): Promise<void> {
  while (!stop.aborted) {
    try {
      await work()
    } catch (cause) {
      if (!stop.aborted) told(cause)
    }
    await pause(milliseconds, undefined, { signal: stop }).catch(() => undefined)
  }
}
