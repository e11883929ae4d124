import { lossProbability, poolLossProbability, reliabilityByMedia, yearHours, type RedundantGroup } from '../durability'
import { piecesOf, stripeSetCount, widthOf } from './scheme'
import type { SpreadSchemeText } from '../estate'

/** What a cluster's stripes rest on. */
export interface SpreadRisk {
  /** Capacity drives in each failure domain that has any (count, ≥ 1). */
  readonly drivesByDomain: readonly number[]
  /** Pieces in a stripe, and how many of them read it (count). */
  readonly width: number
  readonly needed: number
  readonly driveBytes: number
  readonly annualFailureRate: number
  /** Of the cache drive that takes a bank with it; 0 without one. */
  readonly cacheAnnualFailureRate: number
  /** Until the pieces of a lost drive, and of a lost bank's drive, are made anew (hours). */
  readonly rebuildHours: number
  readonly bankRebuildHours: number
  readonly bitErrorRate: number
  /** Sets of stripes that are placed together (count). */
  readonly stripeSets: number
  readonly awayHours: number
}

export interface SpreadLoss {
  readonly oneYear: number
  readonly fiveYears: number
  /** While the largest domain is away for some hours; null where nothing may be lost. */
  readonly whileOneIsAway: number | null
}

/**
 * Probability that stripes spread over failure domains lose data: independent chains of one stripe's drives, as many as it takes to
 * meet every combination of drives whose joint loss would lose data, but no more than there are stripe sets.
 * Source: computation notes, durability, clusters.
 */
export function spreadDurability(risk: SpreadRisk): SpreadLoss {
  const { drivesByDomain, width, needed, stripeSets } = risk
  const survived = width - needed
  const drives = drivesByDomain.reduce((sum, count) => sum + count, 0)
  const chains = Math.max(
    1,
    Math.min(stripeSets, symmetric(drivesByDomain, survived + 1) / choose(width, survived + 1)),
  )
  const pieceBytes = (risk.driveBytes * drives) / (chains * width)
  const whole = chainOf(risk, width, survived, pieceBytes)
  const within = (hours: number) => poolLossProbability(lossProbability(whole, hours), chains)
  return {
    oneYear: within(yearHours),
    fiveYears: within(5 * yearHours),
    whileOneIsAway: survived === 0 ? null : lossWhileAway(risk, chains, whole),
  }
}

/** Only stripes that touch the domain which is away are weaker; the others stay whole. */
function lossWhileAway(risk: SpreadRisk, chains: number, whole: RedundantGroup): number {
  const { drivesByDomain, width, needed, stripeSets, awayHours } = risk
  const survived = width - needed
  const largest = Math.max(...drivesByDomain)
  const away = drivesByDomain.indexOf(largest)
  const rest = drivesByDomain.filter((_, index) => index !== away)
  const restDrives = rest.reduce((sum, count) => sum + count, 0)
  const touch = Math.min(1, inclusionFactor(drivesByDomain, width) * largest)
  const hurtChains = Math.max(1, Math.min(stripeSets * touch, symmetric(rest, survived) / choose(width - 1, survived)))
  const share = (touch * (width - 1)) / (width - touch)
  const pieceBytes = (risk.driveBytes * restDrives * share) / (hurtChains * (width - 1))
  const hurt = lossProbability(chainOf(risk, width - 1, survived - 1, pieceBytes), awayHours)
  const other = lossProbability(whole, awayHours)
  if (hurt >= 1) return 1
  return -Math.expm1(hurtChains * Math.log1p(-hurt) + chains * (1 - touch) * Math.log1p(-other))
}

/** A piece is lost with its drive or with the cache drive of its bank, whichever comes first. */
function chainOf(risk: SpreadRisk, drives: number, survives: number, pieceBytes: number): RedundantGroup {
  const own = -Math.log1p(-risk.annualFailureRate)
  const cache = -Math.log1p(-risk.cacheAnnualFailureRate)
  return {
    drives,
    parityDrives: survives,
    annualFailureRate: -Math.expm1(-(own + cache)),
    rebuildHours: (own * risk.rebuildHours + cache * risk.bankRebuildHours) / (own + cache),
    repair: 'parallel',
    bitErrorRate: risk.bitErrorRate,
    bitsReadToRebuild: risk.needed * pieceBytes * 8,
  }
}

/** The factor c with which the inclusions min(1, c·n) of all domains add up to the width of a stripe. */
function inclusionFactor(counts: readonly number[], width: number): number {
  // From the largest domain on, those that are in every stripe are set apart until the rest adds up.
  const sorted = [...counts].sort((a, b) => b - a)
  let left = sorted.reduce((sum, count) => sum + count, 0)
  for (const [full, count] of sorted.entries()) {
    const factor = (width - full) / left
    if (factor * count <= 1 || full >= width) return factor
    left -= count
  }
  return Infinity
}

/** The elementary symmetric polynomial of a degree, by convolution. */
function symmetric(counts: readonly number[], degree: number): number {
  const ways = [1, ...Array.from({ length: degree }, () => 0)]
  for (const count of counts)
    for (let each = degree; each > 0; each -= 1) ways[each] = (ways[each] ?? 0) + (ways[each - 1] ?? 0) * count
  return ways[degree] ?? 0
}

const choose = (of: number, taken: number) =>
  Array.from({ length: taken }, (_, index) => (of - index) / (index + 1)).reduce(
    (product, factor) => product * factor,
    1,
  )

export interface ClusterDurability {
  readonly oneYear: number
  readonly fiveYears: number
  /** While one domain is away for the hours of a service. */
  readonly whileOneIsAway: number
  readonly awayHours: number
  readonly basis: string
}

const awayHours = 8

/** How long making pieces anew takes (hours); null where nothing is left to make them on. */
export interface ClusterRebuild {
  readonly driveHours: number
  /** Of a drive of a bank that lost its cache drive; all of the bank's drives are made anew together. */
  readonly bankHours: number
}

/**
 * Durability of a cluster by a class's usual figures for its drives.
 * @param drivesByDomain capacity drives in each domain (count)
 * @param driveBytes bytes of one drive
 * @param hasCache whether a cache drive stands before each bank, and takes it with it
 * @returns undefined where stripes cannot be placed, or nothing is known of how long a rebuild takes
 */
export function clusterDurability(
  drivesByDomain: readonly number[],
  scheme: SpreadSchemeText,
  media: 'HDD' | 'SSD',
  driveBytes: bigint,
  rebuild: ClusterRebuild,
  hasCache: boolean,
): ClusterDurability | undefined {
  const width = widthOf(scheme)
  const held = drivesByDomain.filter(count => count > 0)
  if (held.length < width || !(rebuild.driveHours > 0) || !(rebuild.bankHours > 0)) return undefined
  const { annualFailureRate, bitErrorRate } = reliabilityByMedia[media]
  const cacheAnnualFailureRate = hasCache ? reliabilityByMedia.SSD.annualFailureRate : 0
  const loss = spreadDurability({
    drivesByDomain: held,
    width,
    needed: piecesOf(scheme).needed,
    driveBytes: Number(driveBytes),
    annualFailureRate,
    cacheAnnualFailureRate,
    rebuildHours: rebuild.driveHours,
    bankRebuildHours: rebuild.bankHours,
    bitErrorRate,
    stripeSets: stripeSetCount,
    awayHours,
  })
  const percent = (rate: number) => `${(rate * 100).toFixed(1)}%`
  const withCache = hasCache ? `; a cache drive (${percent(cacheAnnualFailureRate)} a year) takes its bank with it` : ''
  return {
    oneYear: loss.oneYear,
    fiveYears: loss.fiveYears,
    // Where nothing may be lost, a domain that is away has lost it.
    whileOneIsAway: loss.whileOneIsAway ?? 1,
    awayHours,
    basis: `${media === 'HDD' ? 'Disks' : 'Flash drives'} fail at ${percent(annualFailureRate)} a year independently of each other${withCache}, and one bit in 10^${Math.round(-Math.log10(bitErrorRate))} that a rebuild reads cannot be read (a class's usual figures)`,
  }
}
