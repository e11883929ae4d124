import type { Connection } from '../Connection'
import type { ServiceMap } from '../service/serviceMap'
import { isAggregate, isAggregationService } from './schema'

/** The name of the cluster that a row's nodes form; null where they form none. */
export async function readClusterName(connection: Connection, map: ServiceMap): Promise<string | null> {
  if (map.aggregation === undefined) return null
  const { Aggregates } = await connection.read(map.aggregation, isAggregationService)
  return (await connection.members(Aggregates['@odata.id'], isAggregate))[0]?.Name ?? null
}
