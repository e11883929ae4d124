import { setTimeout as later } from 'node:timers'
import { setTimeout as pause } from 'node:timers/promises'

const settleMilliseconds = 400
const mostOrigins = 8

/** Rings when a system says that something has changed; bursts are waited out, and what they name is gathered. */
export class Bell {
  /** @param pace how many times as soon a burst counts as over */
  constructor(private readonly pace: number) {}

  #ring = () => undefined as void
  #origins = new Set<string>()
  #isAll = false

  rings = (origins: readonly string[]) => {
    if (!this.#isAll) for (const origin of origins) this.#origins.add(origin)
    if (origins.length === 0 || this.#origins.size > mostOrigins) {
      this.#isAll = true
      this.#origins.clear()
    }
    this.#ring()
  }

  get #hasRung(): boolean {
    return this.#isAll || this.#origins.size > 0
  }

  /** Waits until it rings or the time is over. @returns what it rang for; everything where it did not say, or where it did not ring */
  async wait(milliseconds: number, stop: AbortSignal): Promise<readonly string[] | 'everything'> {
    // What has been stopped while a reading went on would never hear of it any more.
    if (stop.aborted) return 'everything'
    if (!this.#hasRung) {
      await new Promise<void>(resolve => {
        const end = () => {
          clearTimeout(timer)
          stop.removeEventListener('abort', end)
          resolve()
        }
        const timer = later(end, milliseconds)
        this.#ring = end
        stop.addEventListener('abort', end, { once: true })
      })
    }
    if (!this.#hasRung || stop.aborted) return 'everything'
    // Events come in bursts: wait until the burst is over, so that one reading serves it.
    await pause(settleMilliseconds / this.pace, undefined, { signal: stop }).catch(() => undefined)
    const rang = this.#isAll ? ('everything' as const) : [...this.#origins]
    this.#origins = new Set()
    this.#isAll = false
    return rang
  }
}
