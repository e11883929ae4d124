import type { Sample } from './mergeSamples'

/** A system's clock may be so far ahead of the estate's before what it measures counts as from the future (milliseconds). */
const aheadMilliseconds = 5 * 60_000
const dayMilliseconds = 86_400_000

export type RefusedWhy = 'is not a number' | 'is below zero' | 'is from the future' | 'is older than what is kept'

/** Whether something was measured later than now, as it can seem while a clock is ahead, or has just been set. */
export const isFromFuture = ({ at }: { readonly at: number }, now: number): boolean => at > now + aheadMilliseconds

/** Why a sample is not kept; undefined for one that is. What one system states wrongly never spoils what others say. */
export function refusedWhy({ at, value }: Sample, now: number, keptDays: number): RefusedWhy | undefined {
  if (!Number.isFinite(value) || !Number.isFinite(at)) return 'is not a number'
  if (value < 0) return 'is below zero'
  if (isFromFuture({ at }, now)) return 'is from the future'
  return at < now - keptDays * dayMilliseconds ? 'is older than what is kept' : undefined
}

/** Samples that can be kept, and how many could not, by why. */
export function refuseSamples<S extends Sample>(
  samples: readonly S[],
  now: number,
  keptDays: number,
): { readonly kept: readonly S[]; readonly refused: ReadonlyMap<RefusedWhy, number> } {
  const refused = new Map<RefusedWhy, number>()
  const kept = samples.filter(sample => {
    const why = refusedWhy(sample, now, keptDays)
    if (why !== undefined) refused.set(why, (refused.get(why) ?? 0) + 1)
    return why === undefined
  })
  return { kept, refused }
}
