import type { FormClusterIntent, GrowClusterIntent } from '@/core/intents'

/** What a draft that enlarges a cluster starts from: its moving takes half of what drives and links give. */
export const growingIntent = (systemId: string, poolId: string): GrowClusterIntent => ({
  systemId,
  poolId,
  driveIds: [],
  roles: {},
  ratePercent: 50,
})

/** What a draft of a cluster starts from. */
export const newClusterIntent = (systemId: string): FormClusterIntent => ({
  systemId,
  name: '',
  driveIds: [],
  roles: {},
  domain: 'node',
  scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
  keepsRebuildReserve: true,
  snapshotSharePercent: 10,
})
