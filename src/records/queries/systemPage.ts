import { col, fn } from 'sequelize'
import type { SensorReading, SystemPage } from '@/core/views'
import { row, type Scope } from '../database'
import { object, objects } from '../objects'

/** Enclosures as they are numbered: the tenth after the second. */
const byNumber: [ReturnType<typeof fn> | string, string][] = [
  [fn('length', col('locator')), 'ASC'],
  ['locator', 'ASC'],
]

/** One system with all that stands in it but its volumes. */
export async function systemPage(scope: Scope, id: string): Promise<SystemPage | undefined> {
  const system = await object(scope, 'systems', id)
  if (system === undefined) return undefined
  const beside = await row<{ readonly sensors: readonly SensorReading[]; readonly site: string | null }>(
    scope,
    'select sensors, (select name from sites where sites.id = site_id) as site from systems where id = $1',
    [id],
  )
  const where = { systemId: id }
  return {
    system,
    siteName: beside?.site ?? null,
    sensors: beside?.sensors ?? [],
    controllers: await objects(scope, 'controllers', { where }),
    enclosures: await objects(scope, 'enclosures', { where, order: byNumber }),
    drives: await objects(scope, 'drives', { where }),
    ports: await objects(scope, 'ports', { where }),
    pools: await objects(scope, 'pools', { where }),
  }
}
