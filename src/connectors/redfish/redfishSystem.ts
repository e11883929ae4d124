import type { StorageSystem } from '@/ports'
import type { Endpoint } from '../http'
import { Connection, type Credentials } from './Connection'
import { serviceMap, systemTime, type ServiceMap } from './identity'
import { groupInitiators, mappingsOf, mapVolume, targets, unmapVolume } from './mappingRequests'
import { createPool, poolAt, poolByKey, removePool } from './poolRequests'
import { readInventory, readParts } from './readInventory'
import { nodeRow } from './row/nodeRow'
import { readTask } from './tasks'
import { createVolume, enlargeVolume, removeVolume, renameVolume, volumeAt, volumeByKey } from './volumeRequests'
import { watch } from './watch'

/** A system and the UUID by which it was registered; without one, whoever answers is taken for it. */
export interface KnownEndpoint extends Endpoint {
  readonly uuid?: string
}

/** A storage system over Redfish and Swordfish. Nothing is asked of it until the first call. */
export function redfishSystem(endpoint: KnownEndpoint, credentials: Credentials, stop: AbortSignal): StorageSystem {
  const connection = new Connection(endpoint, credentials, stop, endpoint.uuid)
  let mapped: Promise<ServiceMap> | undefined
  const map = () => {
    // A map that could not be read is asked for again by the next call.
    mapped ??= serviceMap(connection).catch((cause: unknown) => {
      mapped = undefined
      throw cause
    })
    return mapped
  }
  return {
    identity: async () => (await serviceMap(connection)).identity,
    async inventory() {
      // Where things stand is read anew with them: a system that was updated may have put them elsewhere.
      const reading = connection.reading()
      mapped = serviceMap(reading)
      mapped.catch(() => (mapped = undefined))
      return readInventory(reading, await mapped)
    },
    parts: async locators => readParts(connection, await map(), locators),
    now: async () => systemTime(connection, (await map()).managers),
    poolByKey: async key => poolByKey(connection, (await map()).pools, key),
    createPool: async (wanted, key) => createPool(connection, (await map()).pools, wanted, key),
    pool: locator => poolAt(connection, locator),
    removePool: (locator, expectedName) => removePool(connection, locator, expectedName),
    volumeByKey: async key => volumeByKey(connection, (await map()).volumes, key),
    createVolume: async (wanted, key) => createVolume(connection, (await map()).volumes, wanted, key),
    volume: locator => volumeAt(connection, locator),
    renameVolume: (locator, expectedNaa, name) => renameVolume(connection, locator, expectedNaa, name),
    enlargeVolume: (locator, expectedNaa, sizeBytes) => enlargeVolume(connection, locator, expectedNaa, sizeBytes),
    removeVolume: (locator, expectedNaa) => removeVolume(connection, locator, expectedNaa),
    mapVolume: async (volume, groupName, initiators, key) =>
      mapVolume(connection, (await map()).fabrics, volume, groupName, initiators, key),
    mappingsOf: async volume => mappingsOf(connection, (await map()).fabrics, volume),
    unmapVolume: async (locator, expected) => unmapVolume(connection, (await map()).fabrics, locator, expected),
    groupInitiators: async name => groupInitiators(connection, (await map()).fabrics, name),
    targets: async () => targets(connection, (await map()).fabrics),
    row: nodeRow(connection, map),
    task: locator => readTask(connection, locator),
    watch: async (changed, until) => watch(connection, (await map()).eventService, changed, until),
    signOut: () => connection.signOut(),
  }
}
