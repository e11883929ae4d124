import type { Drive } from './schemas'

/**
 * What a drive can be expected to write in sequence over its whole surface, in bytes a second: a disk's inner tracks pull its
 * mean below the data sheet's figure, and a flash drive's folding does the same. A first estimate: forecasts learn from what happened.
 */
export function sequentialBytesPerSecond(drive: Pick<Drive, 'media' | 'protocol' | 'rotationSpeedRpm'>): number {
  if (drive.media === 'HDD') return (drive.rotationSpeedRpm ?? 7200) >= 10_000 ? 210e6 : 180e6
  return drive.protocol === 'NVMe' ? 2e9 : drive.protocol === 'SAS' ? 900e6 : 450e6
}
