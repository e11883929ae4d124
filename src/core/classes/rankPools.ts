import { fillRatioOf, provisionableBytes, type Pool, type ServiceClass } from '../estate'
import { formatBytes, oddsInWords } from '../units'
import { lossesSurvived, poolDurabilityOf } from './poolDurabilityOf'

/** By what pools are compared, and of how many points each is. What no system states yet weighs nothing, and says so. */
export const measures = [
  { measure: 'room', words: 'Room afterwards', of: 40 },
  { measure: 'durability', words: 'Durability', of: 25 },
  { measure: 'commitment', words: 'Promised of it', of: 20 },
  { measure: 'cost', words: 'Cost of a TiB', of: 15 },
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
  /** Systems that answer; a pool of another can be no place now. */
  readonly answering: ReadonlySet<string>
}

const clamp = (value: number) => Math.min(1, Math.max(0, value))
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
  const cheapest = Math.min(...pools.map(costOf))
  return pools
    .map((pool): RankedPool => {
      const parts = [
        roomPart(pool, asked),
        durabilityPart(pool),
        commitmentPart(pool, asked),
        costPart(costOf(pool), cheapest),
      ]
      return {
        poolId: pool.id,
        name: pool.name,
        score: parts.reduce((sum, { points }) => sum + points, 0),
        parts,
        out: reasonsAgainst(pool, asked),
      }
    })
    .sort(
      (a, b) =>
        Number(a.out.length > 0) - Number(b.out.length > 0) || b.score - a.score || a.name.localeCompare(b.name),
    )
}

const part = (measure: Measure, place: number, words: string, least: number | null = null): MeasureOf => ({
  measure,
  place: clamp(place),
  points: clamp(place) * (measures.find(each => each.measure === measure)?.of ?? 0),
  words,
  least: least === null ? null : clamp(least),
})

/** What is free of a pool once all that is asked for has been written. */
function freeAfter(pool: Pool, { sizeBytes }: Asked): number {
  const capacity = Number(provisionableBytes(pool))
  return capacity <= 0 ? 0 : 1 - (Number(pool.writtenBytes) + Number(sizeBytes)) / capacity
}

function roomPart(pool: Pool, asked: Asked): MeasureOf {
  const free = freeAfter(pool, asked)
  const left = provisionableBytes(pool) - pool.writtenBytes - asked.sizeBytes
  const least = asked.serviceClass?.headroomRatio
  return part(
    'room',
    free / roomEnough,
    left < 0n ? `${formatBytes(-left)} too little` : `${formatBytes(left)} free`,
    least == null ? null : least / roomEnough,
  )
}

function durabilityPart(pool: Pool): MeasureOf {
  const loss = poolDurabilityOf(pool)?.fiveYears
  if (loss === undefined) return part('durability', 0.5, 'not measured for this layout')
  const place = Math.log10(worstLoss / Math.max(loss, 1e-300)) / Math.log10(worstLoss / bestLoss)
  return part('durability', place, `${oddsInWords(loss).replace('about ', '')} in 5 years`)
}

function commitmentPart(pool: Pool, { sizeBytes }: Asked): MeasureOf {
  const capacity = Math.max(1, Number(provisionableBytes(pool)))
  const promised = (Number(pool.provisionedBytes) + Number(sizeBytes)) / capacity
  return part('commitment', 1.2 - promised, `${(promised * 100).toFixed(0)}% promised`)
}

const costPart = (cost: number, cheapest: number): MeasureOf =>
  part('cost', cheapest / cost, `${(cost / cheapest).toFixed(1)} of the cheapest`)

function reasonsAgainst(pool: Pool, asked: Asked): string[] {
  const { serviceClass, sizeBytes, isThin, answering } = asked
  const survived = lossesSurvived(pool)
  const left = provisionableBytes(pool) - pool.writtenBytes
  const promised = serviceClass?.lossesSurvived
  const headroom = serviceClass?.headroomRatio ?? 0
  return [
    ...(answering.has(pool.systemId) ? [] : ['its system does not answer']),
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
      ? [`${((1 - fillRatioOf(pool)) * 100).toFixed(0)}% free, ${(headroom * 100).toFixed(0)}% promised`]
      : []),
  ]
}
