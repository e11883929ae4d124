/** The stops of a thread, from what is felt to what it stands on. */
export const stops = ['application', 'hosts', 'volume', 'pool', 'drives'] as const
export type Stop = (typeof stops)[number]

/** A part of the estate at one stop. */
export interface Part {
  /** `volume/<id>`: the same wherever it is met. */
  readonly key: string
  readonly stop: Stop
  readonly name: string
}

/** One way from an application down to the drives. A stop may have several parts, or none: a volume that nobody sees has no hosts. */
export type Thread = Readonly<Record<Stop, readonly Part[]>>

export interface Connected {
  /** What stands on it, nearest first. */
  readonly carries: readonly Part[]
  /** What it stands on, nearest first. */
  readonly needs: readonly Part[]
  /** Keys of all of them, and its own. */
  readonly keys: ReadonlySet<string>
}

/**
 * What a part carries and what it needs, along every thread that it is part of. Of a part that is on no thread nothing is known.
 */
export function connected(threads: readonly Thread[], key: string): Connected {
  const own = threads.filter(thread => stops.some(stop => thread[stop].some(part => part.key === key)))
  const at = stops.findIndex(stop => own.some(thread => thread[stop].some(part => part.key === key)))
  if (at < 0) return { carries: [], needs: [], keys: new Set() }
  const among = (wanted: readonly Stop[]) => {
    const seen = new Map<string, Part>()
    for (const stop of wanted) for (const thread of own) for (const part of thread[stop]) seen.set(part.key, part)
    return [...seen.values()]
  }
  const carries = among(stops.slice(0, at).reverse())
  const needs = among(stops.slice(at + 1))
  return { carries, needs, keys: new Set([key, ...[...carries, ...needs].map(part => part.key)]) }
}
