import { transientAfter } from './transientAfter'

/** A RAID group or stripe set, as the loss chain sees it. */
export interface RedundantGroup {
  /** Drives in the group (count, ≥ 1). */
  readonly drives: number
  /** Losses that it survives (count, 0 to drives − 1). */
  readonly parityDrives: number
  /** Fraction of drives that fail in a year (0 up to, but not, 1). */
  readonly annualFailureRate: number
  /** Hours to rebuild one drive. */
  readonly rebuildHours: number
  /** Lost drives are rebuilt one after another, or all at once. */
  readonly repair: 'serial' | 'parallel'
  /** Unrecoverable errors per bit read. */
  readonly bitErrorRate: number
  /** Bits that all reads of one rebuild take together. */
  readonly bitsReadToRebuild: bigint | number
}

export const yearHours = 8766

interface Rates {
  /** From i lost drives to i + 1, an hour; the last leads to loss of data. */
  readonly worse: readonly number[]
  /** From i lost drives to i − 1, an hour. */
  readonly better: readonly number[]
}

/** Transition rates of the chain with states 0…p lost drives and loss. Source: computation notes, durability. */
function ratesOf(group: RedundantGroup): Rates {
  const failuresAnHour = -Math.log1p(-group.annualFailureRate) / yearHours
  const { drives, parityDrives } = group
  const repairRate = (lost: number) => (lost === 0 ? 0 : (group.repair === 'serial' ? 1 : lost) / group.rebuildHours)
  const unreadable = -Math.expm1(Number(group.bitsReadToRebuild) * Math.log1p(-group.bitErrorRate))
  const worse: number[] = []
  const better: number[] = []
  for (let lost = 0; lost <= parityDrives; lost += 1) {
    const isLast = lost === parityDrives && lost > 0
    worse.push((drives - lost) * failuresAnHour + (isLast ? repairRate(lost) * unreadable : 0))
    better.push(repairRate(lost) * (isLast ? 1 - unreadable : 1))
  }
  return { worse, better }
}

/**
 * Mean time to loss of data, from no drive lost.
 * @returns hours; the sum of the mean times from i to i + 1 lost drives, in which every term is positive, so nothing cancels
 */
export function meanHoursToLoss(group: RedundantGroup): number {
  const { worse, better } = ratesOf(group)
  let total = 0
  let climb = 0
  worse.forEach((rate, lost) => {
    climb = 1 / rate + ((better[lost] ?? 0) / rate) * climb
    total += climb
  })
  return total
}

/**
 * Probability that the group has lost data within a time, exact to about nine digits even where it is 1e-18.
 * @param hours the time span, ≥ 0
 */
export function lossProbability(group: RedundantGroup, hours: number): number {
  const { worse, better } = ratesOf(group)
  return transientAfter(worse, better, hours)
}

/** Probability that at least one of `groups` equal, independent groups has lost data: 1 − (1 − P)^G without cancellation. */
export function poolLossProbability(groupProbability: number, groups: number): number {
  return groupProbability >= 1 ? 1 : -Math.expm1(groups * Math.log1p(-groupProbability))
}
