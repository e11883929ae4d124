import type { CreatePoolIntent } from '@/core/intents'

/** What a draft of a pool starts from. */
export const newPoolIntent = (systemId: string): CreatePoolIntent => ({
  systemId,
  name: '',
  driveIds: [],
  scheme: { kind: 'parity', parityDrives: 2 },
  maxGroupDrives: 12,
  spareCount: 1,
  snapshotSharePercent: 10,
})
