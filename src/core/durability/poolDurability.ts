import { leastGroupDrives, type RaidScheme } from '../layout'
import { lossProbability, meanHoursToLoss, poolLossProbability, yearHours } from './lossChain'

/** What a pool's drives promise. `assumed` says which figures are a class's usual ones, not the maker's. */
export interface DriveReliability {
  readonly annualFailureRate: number
  readonly bitErrorRate: number
}

export interface PoolDurability {
  readonly survivedLosses: number
  readonly rebuildHours: number
  readonly oneYear: number
  readonly fiveYears: number
  /** Of one group of the largest size. */
  readonly meanHoursToLoss: number
}

/**
 * Usual figures by media, used until a maker's data sheet or the estate's own history gives better ones.
 * Source: rounded from vendors' published unrecoverable-error classes (10⁻¹⁵ for HDD, 10⁻¹⁷ for SSD) and field failure rates near 1% a year.
 */
export const reliabilityByMedia: Readonly<Record<'HDD' | 'SSD', DriveReliability>> = {
  HDD: { annualFailureRate: 0.014, bitErrorRate: 1e-15 },
  SSD: { annualFailureRate: 0.008, bitErrorRate: 1e-17 },
}

/**
 * Durability of a pool of RAID groups that fail independently of each other.
 * @param groupSizes drives in each group (count)
 * @param driveBytes bytes of one drive that are rebuilt
 * @param rebuildBytesPerSecond the rate at which a replacement is filled
 */
export function poolDurability(
  groupSizes: readonly number[],
  scheme: RaidScheme,
  driveBytes: bigint,
  rebuildBytesPerSecond: number,
  reliability: DriveReliability,
): PoolDurability {
  const rebuildHours = Number(driveBytes) / rebuildBytesPerSecond / 3600
  const chains = chainsOf(groupSizes, scheme)
  const survivedLosses = scheme.kind === 'parity' ? scheme.parityDrives : scheme.copies - 1
  const chainOf = (drives: number) => ({
    drives,
    parityDrives: survivedLosses,
    annualFailureRate: reliability.annualFailureRate,
    rebuildHours,
    repair: 'serial' as const,
    bitErrorRate: reliability.bitErrorRate,
    bitsReadToRebuild: BigInt(scheme.kind === 'parity' ? drives - scheme.parityDrives : 1) * driveBytes * 8n,
  })
  const countBySize = new Map<number, number>()
  for (const drives of chains) countBySize.set(drives, (countBySize.get(drives) ?? 0) + 1)
  const within = (hours: number) => {
    let logSurvival = 0
    for (const [drives, count] of countBySize) {
      logSurvival += Math.log1p(-poolLossProbability(lossProbability(chainOf(drives), hours), count))
    }
    return -Math.expm1(logSurvival)
  }
  const largest = Math.max(leastGroupDrives(scheme), ...chains)
  return {
    survivedLosses,
    rebuildHours,
    oneYear: within(yearHours),
    fiveYears: within(5 * yearHours),
    meanHoursToLoss: meanHoursToLoss(chainOf(largest)),
  }
}

/** A mirror loses data when all copies of one set are lost, so the set is the group that the chain sees. */
const chainsOf = (groupSizes: readonly number[], scheme: RaidScheme): readonly number[] =>
  scheme.kind === 'parity'
    ? groupSizes
    : groupSizes.flatMap(size => Array.from({ length: size / scheme.copies }, () => scheme.copies))
