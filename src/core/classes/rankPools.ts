import { fillRatioOf, provisionableBytes, type Pool, type PoolTrend, type ServiceClass } from '../estate'
import { driveStation } from '../performance'
import { formatBytes, oddsInWords } from '../units'
import { lossesSurvived, poolDurabilityOf } from './poolDurabilityOf'

/** By what pools are compared, and of how many points each is. What no system states yet weighs nothing, and says so. */
export const measures = [
  { measure: 'room', words: 'Room in 90 days', of: 35 },
  { measure: 'durability', words: 'Durability', of: 20 },
  { measure: 'load', words: 'Load headroom', of: 15 },
  { measure: 'commitment', words: 'Promised of it', of: 10 },
  { measure: 'cost', words: 'Cost of a TiB', of: 10 },
  { measure: 'distance', words: 'Distance to its hosts', of: 10 },
] as const
export type Measure = (typeof measures)[number]['measure']

export interface MeasureOf {
  readonly measure: Measure
  /** Its place between the worst (0) and the best (1) that is of use. */
  readonly place: number
  readonly points: number
  /** What was measured, in words. */
  readonly words: string
  /** The place of the least that the class promises, where it promises any. */
  readonly least: number | null
}

export interface RankedPool {
  readonly poolId: string
  readonly name: string
  readonly score: number
  readonly parts: readonly MeasureOf[]
  /** Why it cannot be the place; empty where it can. */
  readonly out: readonly string[]
}

export interface Asked {
  readonly sizeBytes: bigint
  readonly isThin: boolean
  readonly serviceClass: ServiceClass | undefined
  /** What it serves: a pool that is kept for one application takes no other's. */
  readonly application?: string | null
  /** Systems that answer; a pool of another can be no place now. */
  readonly answering: ReadonlySet<string>
  /** How pools answer and grow, by pool; what is not known weighs half. */
  readonly trends?: ReadonlyMap<string, PoolTrend>
  /** Where systems stand, and where those who are to see it do; null where nobody has said. */
  readonly sites?: {
    readonly ofSystems: ReadonlyMap<string, string | null>
    readonly ofHosts: readonly (string | null)[]
  }
}

const clamp = (value: number) => Math.min(1, Math.max(0, value))
/** So far ahead the room is looked at: what else comes to a pool takes it too. */
const aheadDays = 90
/** What is not known is neither for a pool nor against it. */
const unknownPlace = 0.5
/** Across a line between sites every write waits for it. */
const farPlace = 0.2
/** Free space beyond this share is of no further use to one volume. */
const roomEnough = 0.6
/** Chances of loss over five years between which pools differ in what matters. */
const worstLoss = 1e-3
const bestLoss = 1e-12
/** How many times a byte on flash costs one on disks: a usual ratio, until prices are known. */
const flashCost = 4

/** Bytes of raw that stand behind a byte that can be used, times what the media costs beside disks. */
const costOf = (pool: Pool) =>
  (Number(pool.rawBytes) / Math.max(1, Number(provisionableBytes(pool)))) *
  (pool.driveKind.media === 'SSD' ? flashCost : 1)

/**
 * Which pool is the place for what is asked for, best first, those that cannot be it last with the reasons. Ties go by name: the same
 * estate gives the same answer.
 */
export function rankPools(pools: readonly Pool[], asked: Asked): RankedPool[] {
  const cheapest = cheapestOf(pools)
  return pools
    .map(pool => rankedPool(pool, asked, fixedParts(pool, cheapest, asked)))
    .sort(
      (a, b) =>
        Number(a.out.length > 0) - Number(b.out.length > 0) || b.score - a.score || a.name.localeCompare(b.name),
    )
}

/** What a byte costs where it costs least. */
export const cheapestOf = (pools: readonly Pool[]) => Math.min(...pools.map(costOf))

/** Measures that do not depend on how large it is that is asked for. */
export const fixedParts = (pool: Pool, cheapest: number, asked: Pick<Asked, 'trends' | 'sites'>): MeasureOf[] => [
  durabilityPart(pool),
  loadPart(pool, asked.trends?.get(pool.id)),
  costPart(costOf(pool), cheapest),
  distancePart(pool, asked.sites),
]

/** What else will have come to a pool by the day that is looked at. */
export const comingBytes = ({ id }: Pool, { trends }: Pick<Asked, 'trends'>): number =>
  Math.max(0, trends?.get(id)?.growthBytesPerDay ?? 0) * aheadDays

/** A pool for what is asked for, with its measures in their order. */
export function rankedPool(pool: Pool, asked: Asked, fixed: readonly MeasureOf[]): RankedPool {
  const found = [roomPart(pool, asked), commitmentPart(pool, asked), ...fixed]
  const parts = measures.flatMap(({ measure }) => found.find(each => each.measure === measure) ?? [])
  return {
    poolId: pool.id,
    name: pool.name,
    score: parts.reduce((sum, { points }) => sum + points, 0),
    parts,
    out: reasonsAgainst(pool, asked),
  }
}

const part = (measure: Measure, place: number, words: string, least: number | null = null): MeasureOf => ({
  measure,
  place: clamp(place),
  points: clamp(place) * pointsOf(measure),
  words,
  least: least === null ? null : clamp(least),
})

/** The place of what is free of a pool, by what is written of what it can give. */
export const roomPlace = (capacity: number, written: number) =>
  clamp((capacity <= 0 ? 0 : 1 - written / capacity) / roomEnough)
/** The place of what is promised of a pool. */
export const commitmentPlace = (capacity: number, promised: number) => clamp(1.2 - promised / Math.max(1, capacity))
/** How many points a measure has. */
export const pointsOf = (measure: Measure) => measures.find(each => each.measure === measure)?.of ?? 0

function roomPart(pool: Pool, asked: Asked): MeasureOf {
  const left = provisionableBytes(pool) - pool.writtenBytes - asked.sizeBytes
  const coming = comingBytes(pool, asked)
  const least = asked.serviceClass?.headroomRatio
  const then = left - BigInt(Math.round(coming))
  const words = left < 0n ? `${formatBytes(-left)} too little` : `${formatBytes(left)} free`
  return part(
    'room',
    roomPlace(Number(provisionableBytes(pool)), Number(pool.writtenBytes) + Number(asked.sizeBytes) + coming),
    left < 0n || coming === 0 ? words : then > 0n ? `${formatBytes(then)} free then` : `${words} now, full by then`,
    least == null ? null : least / roomEnough,
  )
}

/** Idle drives have the best place; where answers take three times as long, nothing more should come. Source: the knee, at twice. */
function loadPart(pool: Pool, trend: PoolTrend | undefined): MeasureOf {
  const p95Seconds = trend?.p95Seconds ?? null
  if (p95Seconds === null) return part('load', unknownPlace, 'not measured yet')
  const times = p95Seconds / driveStation(pool).serviceSeconds
  const milliseconds = p95Seconds * 1000
  return part('load', (3 - times) / 2, `95 of 100 within ${milliseconds.toFixed(milliseconds < 10 ? 1 : 0)} ms`)
}

function distancePart(pool: Pool, sites: Asked['sites']): MeasureOf {
  const own = sites?.ofSystems.get(pool.systemId) ?? null
  const known = (sites?.ofHosts ?? []).filter(each => each !== null)
  if (own === null || known.length === 0)
    return part('distance', unknownPlace, known.length === 0 ? 'their site not known' : 'its site not known')
  const near = known.filter(each => each === own).length / known.length
  const words = near === 1 ? 'at their site' : near === 0 ? 'at another site' : 'near some of them'
  return part('distance', farPlace + (1 - farPlace) * near, words)
}

function durabilityPart(pool: Pool): MeasureOf {
  const loss = poolDurabilityOf(pool)?.fiveYears
  if (loss === undefined) return part('durability', unknownPlace, 'not measured for this layout')
  const place = Math.log10(worstLoss / Math.max(loss, 1e-300)) / Math.log10(worstLoss / bestLoss)
  return part('durability', place, `${oddsInWords(loss).replace('about ', '')} in 5 years`)
}

function commitmentPart(pool: Pool, { sizeBytes }: Asked): MeasureOf {
  const capacity = Math.max(1, Number(provisionableBytes(pool)))
  const promised = Number(pool.provisionedBytes) + Number(sizeBytes)
  return part(
    'commitment',
    commitmentPlace(capacity, promised),
    `${((promised / capacity) * 100).toFixed(0)}% promised`,
  )
}

const costPart = (cost: number, cheapest: number): MeasureOf =>
  part('cost', cheapest / cost, `${(cost / cheapest).toFixed(1)} of the cheapest`)

/** Whether a pool is kept for another application than the one that is named. */
export const isKeptFromOthers = (pool: Pick<Pool, 'keptFor'>, application: string | null | undefined): boolean =>
  pool.keptFor !== null && pool.keptFor !== (application ?? null)

function reasonsAgainst(pool: Pool, asked: Asked): string[] {
  const { serviceClass, sizeBytes, isThin, answering } = asked
  const survived = lossesSurvived(pool)
  const left = provisionableBytes(pool) - pool.writtenBytes
  const promised = serviceClass?.lossesSurvived
  const headroom = serviceClass?.headroomRatio ?? 0
  return [
    ...(answering.has(pool.systemId) ? [] : ['its system does not answer']),
    ...(isKeptFromOthers(pool, asked.application) ? [`kept for ${pool.keptFor ?? ''}`] : []),
    ...(pool.state === 'fine' || pool.state === 'degraded'
      ? []
      : [pool.state === 'starting' ? 'still being initialised' : 'it has failed']),
    ...(promised != null && pool.state === 'degraded' ? ['degraded: it survives less now than is promised'] : []),
    ...(!isThin && sizeBytes > left ? [`${formatBytes(sizeBytes - left)} too little room`] : []),
    ...(isThin && left <= 0n ? ['it is full'] : []),
    ...(serviceClass !== undefined && serviceClass.media !== 'any' && pool.driveKind.media !== serviceClass.media
      ? [`of ${pool.driveKind.media}, ${serviceClass.media} promised`]
      : []),
    ...(promised == null || (survived ?? -1) >= promised
      ? []
      : [survived === undefined ? 'what it survives is not known' : `survives ${survived}, ${promised} promised`]),
    ...(serviceClass?.headroomRatio != null && 1 - fillRatioOf(pool) < headroom
      ? [`${(Math.max(0, 1 - fillRatioOf(pool)) * 100).toFixed(0)}% free, ${(headroom * 100).toFixed(0)}% promised`]
      : []),
  ]
}
