import { poolDurability, reliabilityByMedia, type PoolDurability } from '../durability'
import { sequentialBytesPerSecond, type Pool } from '../estate'

/** Of a drive's rate that rebuilding takes; the rest is the hosts'. */
const rebuildShare = 0.5

/** Losses at once after which all of a pool can still be read: of drives, or of what it spreads over; undefined where its layout is not known. */
export function lossesSurvived({ scheme }: Pick<Pool, 'scheme'>): number | undefined {
  switch (scheme.kind) {
    case 'parity':
      return scheme.parityDrives
    case 'mirror':
    case 'copies':
      return scheme.copies - 1
    case 'erasure':
      return scheme.parityPieces
    case 'unknown':
      return undefined
  }
}

/** Durability of a pool of RAID groups, from what its system states of it; undefined where the layout is not one. */
export function poolDurabilityOf(pool: Pool): PoolDurability | undefined {
  const { scheme, groupSizes, driveKind } = pool
  const drives = groupSizes.reduce((sum, size) => sum + size, pool.spareCount)
  if ((scheme.kind !== 'parity' && scheme.kind !== 'mirror') || drives === 0) return undefined
  const rate = sequentialBytesPerSecond({ ...driveKind, rotationSpeedRpm: null }) * rebuildShare
  return poolDurability(groupSizes, scheme, pool.rawBytes / BigInt(drives), rate, reliabilityByMedia[driveKind.media])
}
