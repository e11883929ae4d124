import { LRUCache } from 'lru-cache'
import type { Scope } from './Scope'

const mostEntries = 200
/** What changes without a notice (when a system was last read, settings by another process) is at most this old. */
const longestMilliseconds = 5000

/**
 * What was read of the records and has not changed since: every reader of the same shares one reading. The database tells of each
 * change; all is forgotten then, and while nobody listens nothing is remembered.
 */
export class Memory {
  readonly #kept = new LRUCache<string, Promise<unknown>>({
    max: mostEntries,
    ttl: longestMilliseconds,
    // At rest nothing is held.
    ttlAutopurge: true,
  })

  readonly #forgets: (() => void)[] = []

  /** @param isTold whether changes are told now */
  constructor(readonly isTold: () => boolean) {}

  of<T>(key: string, read: () => Promise<T>): Promise<T> {
    if (!this.isTold()) return read()
    const known = this.#kept.get(key) as Promise<T> | undefined
    if (known !== undefined) return known
    const reading = read()
    // Kept before it has been read: what changes meanwhile forgets it, and many who ask at once wait for one answer.
    this.#kept.set(key, reading)
    reading.catch(() => {
      if (this.#kept.peek(key) === reading) this.#kept.delete(key)
    })
    return reading
  }

  /** After a change: of others by notice, of our own before it is answered. */
  forget(): void {
    this.#kept.clear()
    for (const forget of this.#forgets) forget()
  }

  /** For whoever remembers what follows from the records. */
  onForget(forget: () => void): void {
    this.#forgets.push(forget)
  }
}

/** A scope for reading only, with a memory. */
export interface ReadingScope extends Scope {
  readonly memory?: Memory
}

/** Reads, or remembers where the scope has a memory. Never within a transaction, whose own changes nobody has been told. */
export const remembered = <T>(
  { memory, transaction }: ReadingScope,
  key: string,
  read: () => Promise<T>,
): Promise<T> => (memory === undefined || transaction !== undefined ? read() : memory.of(key, read))
