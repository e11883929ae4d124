import { sequentialBytesPerSecond, type Pool } from '@/core/estate'
import type { SharedPart } from '@/core/transfer'

/** What the drives of a pool can give to something that moves, at a share of their rate. */
export const driveShare = ({ name, driveKind, groupSizes }: Pool, ratePercent: number): SharedPart => ({
  name: `drives of ${name}`,
  bytesPerSecond:
    (sequentialBytesPerSecond({ ...driveKind, rotationSpeedRpm: null }) *
      groupSizes.reduce((sum, size) => sum + size, 0) *
      ratePercent) /
    100,
})
