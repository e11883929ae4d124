import { compositionOf, limitRatio, type NoOutlook, type Outlook, type WrittenBy } from '@/core/capacity'
import { byId, provisionableBytes, type Pool, type System } from '@/core/estate'
import { rankFilling } from '@/core/forecast'
import { dailyLevels, type DailyLevels } from '@/core/metrics'
import type { Grower, PoolFilling, PoolGrowth, WayOut } from '@/core/views'
import { draftAddress, moveVolumeIntent, removeSnapshotsIntent, removeVolumeIntent } from '@/core/intents'
import { row, rows, type Scope } from '../database'
import { dailyLast, forecastsOf } from '../metrics'
import { pools, systems } from './estatePage'

const growthDays = 28
const pastDays = 120
const dayMilliseconds = 86_400_000

/** All pools: what is past its limit first, then by the day on which it is likely to reach it. */
export async function poolsByDate(scope: Scope): Promise<PoolFilling[]> {
  const allPools = await pools(scope)
  const allSystems = await systems(scope)
  const outlooks = await forecastsOf(
    scope,
    allPools.map(({ id }) => id),
  )
  return byDate(allPools, allSystems, outlooks)
}

/** Pools that have been read, with what is likely to come of them, in that order. */
export function byDate(
  allPools: readonly Pool[],
  allSystems: readonly System[],
  outlooks: ReadonlyMap<string, Outlook | NoOutlook>,
): PoolFilling[] {
  const filling = allPools.map(pool => {
    const outlook = outlooks.get(pool.id)
    return {
      ...{ id: pool.id, pool, outlook, systemName: byId(allSystems, pool.systemId)?.name ?? 'a system' },
      usedBytes: Number(pool.writtenBytes),
      limitBytes: Number(provisionableBytes(pool)) * limitRatio,
      daysToFull: outlook === undefined || 'why' in outlook ? null : outlook.reachesLimit.p50,
    }
  })
  return rankFilling(filling).map(({ pool, systemName, outlook }) => ({ pool, systemName, outlook }))
}

/** The levels of pools by day, of as many days as a forecast looks back. */
export async function poolLevels(
  scope: Scope,
  poolIds: readonly string[],
  now: Date,
): Promise<ReadonlyMap<string, DailyLevels>> {
  const since = new Date(now.getTime() - pastDays * dayMilliseconds)
  const measured = await dailyLast(scope, 'written', poolIds, since)
  return new Map(
    [...measured].flatMap(([id, samples]) => {
      const levels = dailyLevels(samples)
      return levels === undefined ? [] : [[id, levels] as const]
    }),
  )
}

/** One pool with its past, what grows in it, and what would give it a later day. */
export async function poolGrowth(scope: Scope, filling: PoolFilling, now: Date): Promise<PoolGrowth> {
  const { pool } = filling
  const levels = (await poolLevels(scope, [pool.id], now)).get(pool.id)
  const volumes = await growthOf(scope, pool.id)
  const written = await writtenBy(scope, pool.id)
  const others = (await pools(scope)).filter(each => each.systemId === pool.systemId && each.id !== pool.id)
  return {
    ...filling,
    levels,
    growers: volumes.growing,
    ways: waysOut(volumes, others, written.holding),
    composition: compositionOf(pool, written),
  }
}

/** What a pool's volumes have written, by what they are. */
async function writtenBy(scope: Scope, poolId: string): Promise<WrittenBy> {
  const found = await row<{ readonly live: string; readonly clones: string; readonly holding: string }>(
    scope,
    `select coalesce(sum(written_bytes) filter (where state <> 'holding' and clone_of_id is null), 0) as live,
       coalesce(sum(written_bytes) filter (where state <> 'holding' and clone_of_id is not null), 0) as clones,
       coalesce(sum(written_bytes) filter (where state = 'holding'), 0) as holding
     from volumes where pool_id = $1 and missing_since is null`,
    [poolId],
  )
  return {
    live: BigInt(found?.live ?? 0),
    clones: BigInt(found?.clones ?? 0),
    holding: BigInt(found?.holding ?? 0),
  }
}

interface VolumeGrowth extends Grower {
  /** Held by its snapshots beside it. */
  readonly heldBytes: number
}

interface GrownRow {
  readonly list: 'growing' | 'held' | 'unseen' | 'removed'
  readonly id: string
  readonly name: string
  readonly written: number
  readonly growth: number
  readonly held: number
}

/**
 * Of a pool's volumes those that matter, as they were found with its last forecast; what has become otherwise since (gone, removed, shown
 * to somebody) is left out, and what is written is told as it is now.
 */
async function growthOf(scope: Scope, poolId: string) {
  const found = await rows<GrownRow>(
    scope,
    `select found.list, volumes.id, volumes.name, volumes.written_bytes::float8 as written, found.growth, found.held
     from growth_forecasts cross join jsonb_to_recordset(volumes_found) as found (list text, id uuid, growth float8, held float8)
       join volumes on volumes.id = found.id
     where growth_forecasts.pool_id = $1 and volumes.pool_id = $1 and volumes.missing_since is null
       and (volumes.state = 'holding') = (found.list = 'removed')
       and (found.list <> 'unseen' or not exists (select from mappings where volume_id = volumes.id and missing_since is null))`,
    [poolId],
  )
  const of = (wanted: GrownRow['list']) =>
    found
      .filter(({ list }) => list === wanted)
      .map(({ id, name, written, growth, held }) => ({
        ...{ id, name, writtenBytes: written, bytesPerDay: growth, heldBytes: held },
      }))
  return {
    growing: of('growing').sort((a, b) => b.bytesPerDay - a.bytesPerDay || b.writtenBytes - a.writtenBytes),
    mostHeld: of('held')[0],
    largestUnseen: of('unseen')[0],
    largestRemoved: of('removed')[0],
  }
}
type VolumesThatMatter = Awaited<ReturnType<typeof growthOf>>

/** The ways, those that give most first. */
function waysOut(volumes: VolumesThatMatter, others: readonly Pool[], holdingBytes: bigint): WayOut[] {
  return [
    ...moves(volumes.growing, others),
    ...fewerSnapshots(volumes),
    ...unseen(volumes),
    ...holding(volumes, Number(holdingBytes)),
  ].sort((a, b) => b.bytes + b.bytesPerDay * growthDays - (a.bytes + a.bytesPerDay * growthDays))
}

const roomIn = (pool: Pool) => Number(provisionableBytes(pool)) * limitRatio - Number(pool.writtenBytes)

/** The fastest that fit below the limit of the pool of their system that has most room. */
function moves(growing: readonly VolumeGrowth[], others: readonly Pool[]): WayOut[] {
  const [roomiest] = [...others].sort((a, b) => roomIn(b) - roomIn(a))
  if (roomiest === undefined) return []
  return growing
    .filter(({ writtenBytes, heldBytes }) => writtenBytes > 0 && writtenBytes + heldBytes < roomIn(roomiest))
    .slice(0, 3)
    .map(({ id, name, writtenBytes, heldBytes, bytesPerDay }) => ({
      title: `Move ${name} to ${roomiest.name}`,
      why: 'Its hosts go on; the slow part is the copy.',
      bytes: writtenBytes + heldBytes,
      bytesPerDay,
      href: `${draftAddress(moveVolumeIntent, { volumeId: id }) ?? ''}&pool=${roomiest.id}`,
    }))
}

const fewerSnapshots = ({ mostHeld }: VolumesThatMatter): WayOut[] =>
  mostHeld === undefined || mostHeld.heldBytes === 0
    ? []
    : [
        {
          title: `Remove snapshots of ${mostHeld.name}`,
          why: 'What only they hold is free at once; what no class needs goes first.',
          bytes: mostHeld.heldBytes,
          bytesPerDay: 0,
          href: draftAddress(removeSnapshotsIntent, { volumeId: mostHeld.id }) ?? '',
        },
      ]

const unseen = ({ largestUnseen }: VolumesThatMatter): WayOut[] =>
  largestUnseen === undefined
    ? []
    : [
        {
          title: `Remove ${largestUnseen.name}`,
          why: 'No host sees it. It stays in holding for some days, and its space with it.',
          bytes: largestUnseen.writtenBytes,
          bytesPerDay: largestUnseen.bytesPerDay,
          href: draftAddress(removeVolumeIntent, { volumeId: largestUnseen.id }) ?? '',
        },
      ]

/** What was removed and waits. */
const holding = ({ largestRemoved }: VolumesThatMatter, bytes: number): WayOut[] =>
  largestRemoved === undefined
    ? []
    : [
        {
          title: `Erase what is in holding now, ${largestRemoved.name} first`,
          why: 'It was removed; once erased it cannot be brought back.',
          bytes,
          bytesPerDay: 0,
          href: `/provision?sel=${largestRemoved.id}`,
        },
      ]
