import { provisionableBytes, type Pool } from '../estate'
import { limitRatio } from './outlook'

/** What volumes of a pool have written, by what they are. */
export interface WrittenBy {
  readonly live: bigint
  readonly clones: bigint
  readonly holding: bigint
}

const spaceKinds = [
  'live',
  'clones',
  'snapshots',
  'holding',
  'metadata',
  'free to the limit',
  'last tenth',
  'reserve',
  'redundancy',
  'stranded',
  'spares',
] as const
export type SpaceKind = (typeof spaceKinds)[number]

/** Every byte of a pool's drives under one name: the parts add up to its raw bytes. Kinds of which there is nothing are left out. */
export function compositionOf(
  pool: Pool,
  { live, clones, holding }: WrittenBy,
): readonly (readonly [SpaceKind, bigint])[] {
  const room = provisionableBytes(pool)
  const ofVolumes = live + clones + holding
  const written = pool.writtenBytes > ofVolumes ? pool.writtenBytes : ofVolumes
  // What is written and of no volume is held by snapshots beyond what was set aside for them.
  const inReserve = least(pool.snapshotBytes, pool.snapshotReserveBytes)
  const limit = BigInt(Math.floor(Number(room) * limitRatio))
  const free = room > written ? room - written : 0n
  const toLimit = least(limit > written ? limit - written : 0n, free)
  const parts: Readonly<Record<SpaceKind, bigint>> = {
    live,
    clones,
    snapshots: written - ofVolumes + inReserve,
    holding,
    metadata: pool.metadataBytes,
    'free to the limit': toLimit,
    'last tenth': free - toLimit,
    reserve: pool.snapshotReserveBytes - inReserve + pool.rebuildReserveBytes,
    redundancy: pool.redundancyBytes,
    stranded: pool.strandedBytes,
    spares: pool.spareBytes,
  }
  return spaceKinds.flatMap(kind => (parts[kind] === 0n ? [] : [[kind, parts[kind]] as const]))
}

const least = (a: bigint, b: bigint) => (a < b ? a : b)
