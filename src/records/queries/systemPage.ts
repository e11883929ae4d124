import type { Controller, Enclosure, Port } from '@/core/estate'
import type { SensorReading, SystemPage } from '@/core/views'
import { row, rows, type Scope } from '../database'
import {
  columns,
  toController,
  toDrive,
  toEnclosure,
  toPool,
  toPort,
  toSystem,
  type DriveRow,
  type PoolRow,
  type RowOf,
  type SystemRow,
} from '../estate'

/** One system with all that stands in it but its volumes. */
export async function systemPage(scope: Scope, id: string): Promise<SystemPage | undefined> {
  const system = await row<SystemRow & { readonly site_name: string | null; readonly sensors: SensorReading[] }>(
    scope,
    `select ${columns.systems}, sensors, (select name from sites where sites.id = site_id) as site_name from systems where id = $1`,
    [id],
  )
  if (system === undefined) return undefined
  const { site_name: siteName, sensors, ...own } = system
  return {
    system: toSystem(own),
    siteName,
    sensors,
    controllers: (
      await rows<RowOf<Controller>>(
        scope,
        `select ${columns.controllers} from controllers where system_id = $1 and missing_since is null order by name`,
        [id],
      )
    ).map(toController),
    enclosures: (
      await rows<RowOf<Enclosure>>(
        scope,
        `select ${columns.enclosures} from enclosures where system_id = $1 and missing_since is null order by locator`,
        [id],
      )
    ).map(toEnclosure),
    drives: (
      await rows<DriveRow>(
        scope,
        `select ${columns.drives} from drives where system_id = $1 and missing_since is null order by enclosure_id, bay`,
        [id],
      )
    ).map(toDrive),
    ports: (
      await rows<RowOf<Port>>(
        scope,
        `select ${columns.ports} from ports where system_id = $1 and missing_since is null order by name`,
        [id],
      )
    ).map(toPort),
    pools: (
      await rows<PoolRow>(
        scope,
        `select ${columns.pools} from pools where system_id = $1 and missing_since is null order by name`,
        [id],
      )
    ).map(toPool),
  }
}
