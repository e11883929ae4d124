/** What was measured, beside the figure to reach. */
export interface Figure {
  readonly what: string
  readonly measured: string
  readonly wanted: string
  readonly holds: boolean
}

/** Runs `work` some times and takes the median, in milliseconds. */
export async function medianMilliseconds(times: number, work: () => unknown): Promise<number> {
  const taken: number[] = []
  for (let turn = 0; turn < times; turn += 1) {
    const at = performance.now()
    await work()
    taken.push(performance.now() - at)
  }
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)] ?? Number.NaN
}
