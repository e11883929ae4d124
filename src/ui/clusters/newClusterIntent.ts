import type { SpreadSchemeText } from '@/core/estate'

export interface ClusterIntent {
  readonly systemId: string
  readonly name: string
  readonly driveIds: readonly string[]
  readonly roles: Readonly<Record<string, 'cache' | 'capacity'>>
  readonly domain: 'node' | 'enclosure' | 'rack'
  readonly scheme: SpreadSchemeText
  readonly keepsRebuildReserve: boolean
  readonly snapshotSharePercent: number
}

/** What a draft that enlarges a cluster starts from: its moving takes half of what drives and links give. */
export const growingIntent = (systemId: string, poolId: string) => ({
  systemId,
  poolId,
  driveIds: [] as readonly string[],
  roles: {} as Readonly<Record<string, 'cache' | 'capacity'>>,
  ratePercent: 50,
})

/** What a draft of a cluster starts from. */
export const newClusterIntent = (systemId: string): ClusterIntent => ({
  systemId,
  name: '',
  driveIds: [],
  roles: {},
  domain: 'node',
  scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
  keepsRebuildReserve: true,
  snapshotSharePercent: 10,
})
