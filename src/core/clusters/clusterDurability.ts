import { lossProbability, poolLossProbability, reliabilityByMedia, yearHours, type RedundantGroup } from '../durability'
import { piecesOf, widthOf } from './scheme'
import type { SpreadSchemeText } from '../estate'

/** Sets of stripes that are placed together: as many as a pool knows. */
export const stripeSetCount = 4096

export interface ClusterDurability {
  readonly oneYear: number
  readonly fiveYears: number
  /** While one domain is away for the hours of a service. */
  readonly whileOneIsAway: number
  readonly awayHours: number
  readonly basis: string
}

const awayHours = 8

/**
 * Durability of stripes that are spread over domains: the chain of one stripe set, and as many independent sets as it takes
 * to meet every combination of drives whose joint loss would lose data (never more than there are).
 * @param drivesByDomain capacity drives in each domain (count)
 * @param bytesOfDrive bytes of one drive
 * @param rebuildHours until a lost drive's pieces are made anew on what is left
 */
export function clusterDurability(
  drivesByDomain: readonly number[],
  scheme: SpreadSchemeText,
  media: 'HDD' | 'SSD',
  bytesOfDrive: bigint,
  rebuildHours: number,
): ClusterDurability | undefined {
  const width = widthOf(scheme)
  const { needed, spare } = piecesOf(scheme)
  if (drivesByDomain.filter(count => count > 0).length < width || !(rebuildHours > 0)) return undefined
  const { annualFailureRate, bitErrorRate } = reliabilityByMedia[media]
  const groups = setsThatMeetAll(drivesByDomain, width, spare + 1)
  const drives = drivesByDomain.reduce((sum, count) => sum + count, 0)
  const pieceBytes = (Number(bytesOfDrive) * drives) / (groups * width)
  const chain = (count: number, survives: number): RedundantGroup => ({
    drives: count,
    parityDrives: survives,
    annualFailureRate,
    rebuildHours,
    repair: 'parallel',
    bitErrorRate,
    bitsReadToRebuild: BigInt(Math.round(needed * pieceBytes * 8)),
  })
  const within = (hours: number) => poolLossProbability(lossProbability(chain(width, spare), hours), groups)
  const withoutLargest = [...drivesByDomain].sort((a, b) => b - a).slice(1)
  const hurtGroups = setsThatMeetAll(withoutLargest, width - 1, spare)
  return {
    oneYear: within(yearHours),
    fiveYears: within(5 * yearHours),
    whileOneIsAway: poolLossProbability(lossProbability(chain(width - 1, spare - 1), awayHours), hurtGroups),
    awayHours,
    basis: `${media === 'HDD' ? 'Disks' : 'Flash drives'} fail at ${(annualFailureRate * 100).toFixed(1)}% a year independently of each other, and one bit in 10^${Math.round(-Math.log10(bitErrorRate))} that a rebuild reads cannot be read (a class's usual figures)`,
  }
}

/** Combinations of `lost` drives in different domains, divided by those that one stripe set meets. */
function setsThatMeetAll(drivesByDomain: readonly number[], width: number, lost: number): number {
  // Elementary symmetric polynomial of the drive counts, by convolution.
  const ways = [1, ...Array.from({ length: lost }, () => 0)]
  for (const count of drivesByDomain)
    for (let degree = lost; degree > 0; degree -= 1)
      ways[degree] = (ways[degree] ?? 0) + (ways[degree - 1] ?? 0) * count
  const combinations = Array.from({ length: lost }, (_, index) => (width - index) / (index + 1)).reduce(
    (a, b) => a * b,
    1,
  )
  return Math.max(1, Math.min(stripeSetCount, Math.round((ways[lost] ?? 0) / combinations)))
}
