import type { RaidSchemeText } from '@/core/estate'

export interface PoolIntent {
  readonly systemId: string
  readonly name: string
  readonly driveIds: readonly string[]
  readonly scheme: RaidSchemeText
  readonly maxGroupDrives: number
  readonly spareCount: number
  readonly snapshotSharePercent: number
}

/** What a draft of a pool starts from. */
export const newPoolIntent = (systemId: string): PoolIntent => ({
  systemId,
  name: '',
  driveIds: [],
  scheme: { kind: 'parity', parityDrives: 2 },
  maxGroupDrives: 12,
  spareCount: 1,
  snapshotSharePercent: 10,
})
