import type { StorageSystem } from '@/ports'
import type { Endpoint } from '../http'
import { Connection, type Credentials } from './Connection'
import { serviceMap, systemTime, type ServiceMap } from './identity'
import { mappingsOf, mapVolume, targets } from './mappingRequests'
import { createPool, poolAt, poolByKey } from './poolRequests'
import { readInventory } from './readInventory'
import { nodeRow } from './row/nodeRow'
import { RequestRefused } from './errors'
import { readTask } from './tasks'
import { createVolume, enlargeVolume, volumeAt, volumeByKey } from './volumeRequests'
import { watch } from './watch'

/** A storage system over Redfish and Swordfish. Nothing is asked of it until the first call. */
export function redfishSystem(endpoint: Endpoint, credentials: Credentials, stop: AbortSignal): StorageSystem {
  const connection = new Connection(endpoint, credentials, stop)
  let mapped: Promise<ServiceMap> | undefined
  const map = () => {
    // A map that could not be read is asked for again by the next call.
    mapped ??= serviceMap(connection).catch((cause: unknown) => {
      mapped = undefined
      throw cause
    })
    return mapped
  }
  const remove = (locator: string) =>
    connection.change('DELETE', locator).then(
      () => undefined,
      (cause: unknown) => {
        if (cause instanceof RequestRefused && cause.status === 404) return
        throw cause
      },
    )
  return {
    identity: async () => (await map()).identity,
    inventory: async () => readInventory(connection, await map()),
    now: async () => systemTime(connection, (await map()).managers),
    poolByKey: async key => poolByKey(connection, (await map()).pools, key),
    createPool: async (wanted, key) => createPool(connection, (await map()).pools, wanted, key),
    pool: locator => poolAt(connection, locator),
    removePool: remove,
    volumeByKey: async key => volumeByKey(connection, (await map()).volumes, key),
    createVolume: async (wanted, key) => createVolume(connection, (await map()).volumes, wanted, key),
    volume: locator => volumeAt(connection, locator),
    enlargeVolume: (locator, sizeBytes) => enlargeVolume(connection, locator, sizeBytes),
    removeVolume: remove,
    mapVolume: async (volume, groupName, initiators, key) =>
      mapVolume(connection, (await map()).fabrics, volume, groupName, initiators, key),
    mappingsOf: async volume => mappingsOf(connection, (await map()).fabrics, volume),
    unmapVolume: remove,
    targets: async () => targets(connection, (await map()).fabrics),
    row: nodeRow(connection, map),
    task: locator => readTask(connection, locator),
    watch: async (changed, until) => watch(connection, (await map()).eventService, changed, until),
  }
}
