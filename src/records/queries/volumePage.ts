import { promisesOf } from '@/core/classes'
import type { System, Volume } from '@/core/estate'
import type { VolumePage } from '@/core/views'
import { Op } from 'sequelize'
import { changesAbout } from '../changes'
import { row, type Scope } from '../database'
import { estateNow } from '../inventory'
import { hostWays } from './hostWays'
import { object, objectCount, objects } from '../objects'

const mostChanges = 20

/** One volume with its neighbours and the latest changes that touched it. */
export async function volumePage(scope: Scope, id: string): Promise<VolumePage | undefined> {
  const volume = await object(scope, 'volumes', id)
  if (volume === undefined) return undefined
  const pool = await object(scope, 'pools', volume.poolId)
  const system = await object(scope, 'systems', volume.systemId)
  if (pool === undefined || system === undefined) return undefined
  const mappings = await objects(scope, 'mappings', { where: { volumeId: id }, order: [['groupName', 'ASC']] })
  const ports = await objects(scope, 'ports', { where: { systemId: volume.systemId } })
  const serviceClass =
    volume.classId === null ? null : ((await object(scope, 'serviceClasses', volume.classId)) ?? null)
  const latest = await objects(scope, 'snapshots', {
    where: { volumeId: id, state: 'consistent', goesAt: null },
    and: { dueAt: { [Op.ne]: null } },
    order: [['takenAt', 'DESC']],
    limit: 1,
  })
  const now = await estateNow(scope)
  return {
    volume,
    missingSince: await missingSince(scope, id),
    pool,
    system,
    partner: await partnerOf(scope, volume),
    mappings,
    ways: mappings.length === 0 ? [] : await hostWays(scope, { naa: volume.naa }),
    targets: ports.flatMap(({ targetName, address }) =>
      targetName === null || address === null ? [] : [{ name: targetName, address }],
    ),
    changes: await changesAbout(scope, id, mostChanges),
    serviceClass,
    promises:
      serviceClass === null
        ? []
        : promisesOf(volume, { serviceClass, pool, snapshots: latest, now, p95Seconds: await p95Of(scope, id) }),
    snapshotCount: await objectCount(scope, 'snapshots', { where: { volumeId: id } }),
    cloneOf: volume.cloneOfId === null ? null : ((await object(scope, 'snapshots', volume.cloneOfId)) ?? null),
  }
}

async function missingSince(scope: Scope, id: string): Promise<string | null> {
  const sql = 'select missing_since as since from volumes where id = $1'
  return (await row<{ readonly since: Date | null }>(scope, sql, [id]))?.since?.toISOString() ?? null
}

/** The system on which its mirror stands. */
async function partnerOf(scope: Scope, { mirror }: Volume): Promise<System | null> {
  if (mirror?.partner == null) return null
  const [partner] = await objects(scope, 'systems', { where: { serial: mirror.partner }, limit: 1 })
  return partner ?? null
}

async function p95Of(scope: Scope, volumeId: string): Promise<number | null> {
  const found = await row<{ readonly p95: number | null }>(
    scope,
    `select recent_p95 as p95 from metric_series where object_id = $1 and metric = 'latency'`,
    [volumeId],
  )
  return found?.p95 ?? null
}
