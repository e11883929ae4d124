import type { VolumePage } from '@/core/views'
import { changesAbout } from '../changes'
import { row, type Scope } from '../database'
import { object, objects } from '../objects'

const mostChanges = 20

/** One volume with its neighbours and the latest changes that touched it. */
export async function volumePage(scope: Scope, id: string): Promise<VolumePage | undefined> {
  const volume = await object(scope, 'volumes', id)
  if (volume === undefined) return undefined
  const pool = await object(scope, 'pools', volume.poolId)
  const system = await object(scope, 'systems', volume.systemId)
  if (pool === undefined || system === undefined) return undefined
  const missing = await row<{ readonly since: Date | null }>(
    scope,
    'select missing_since as since from volumes where id = $1',
    [id],
  )
  const mappings = await objects(scope, 'mappings', { where: { volumeId: id }, order: [['groupName', 'ASC']] })
  const ports = await objects(scope, 'ports', { where: { systemId: volume.systemId } })
  return {
    volume,
    missingSince: missing?.since?.toISOString() ?? null,
    pool,
    system,
    mappings,
    targets: ports.flatMap(({ targetName, address }) =>
      targetName === null || address === null ? [] : [{ name: targetName, address }],
    ),
    changes: await changesAbout(scope, id, mostChanges),
  }
}
