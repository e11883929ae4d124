/** What was measured, beside the figure to reach. */
export interface Figure {
  readonly what: string
  readonly measured: string
  readonly wanted: string
  readonly holds: boolean
}

/** How long some turns of the same work took (milliseconds). */
export interface Timed {
  readonly median: number
  /** The quickest turn: what is missed by it too is missed by more than the run's own noise. */
  readonly best: number
}

/** Runs `work` some times. */
export async function timed(times: number, work: () => unknown): Promise<Timed> {
  const taken: number[] = []
  for (let turn = 0; turn < times; turn += 1) {
    const at = performance.now()
    await work()
    taken.push(performance.now() - at)
  }
  return timesOf(taken)
}

export function timesOf(taken: readonly number[]): Timed {
  const sorted = [...taken].sort((a, b) => a - b)
  return { median: sorted[Math.floor(sorted.length / 2)] ?? Number.NaN, best: sorted[0] ?? Number.NaN }
}

/** That work takes less than some milliseconds. */
export const under = (what: string, { median, best }: Timed, most: number): Figure => ({
  what,
  measured: inWords(median),
  wanted: `under ${most < 1000 ? `${most} ms` : `${most / 1000} s`}`,
  holds: best < most,
})

export const inWords = (milliseconds: number): string =>
  `${milliseconds.toFixed(milliseconds < 1 ? 3 : milliseconds < 10 ? 1 : 0)} ms`
