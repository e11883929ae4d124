import type { ResourceName, StorageSystem, SystemResources } from '@/ports'
import type { Endpoint } from '../http'
import { clusters } from './clusters/requests'
import { Connection } from './Connection'
import { consistencyGroups } from './consistencyGroups/requests'
import type { Credentials } from './session'
import { drives } from './drives/requests'
import { fileServices } from './files/services'
import { shares } from './files/shares'
import { watch } from './events/watch'
import { mappings } from './mappings/requests'
import { metrics } from './metrics/read'
import { mirrors } from './mirrors/requests'
import { interfaces, switchPorts } from './network/requests'
import { nodes } from './nodes/requests'
import { pools } from './pools/requests'
import { snapshots } from './snapshots/requests'
import { spreadPools } from './pools/spread'
import type { Offer } from './Reach'
import { readInventory, readParts } from './readInventory'
import { serviceMap, systemTime, type ServiceMap } from './service/serviceMap'
import { tasks } from './tasks/requests'
import { volumes } from './volumes/requests'

/** A system and the UUID by which it was registered; without one, whoever answers is taken for it. */
export interface KnownEndpoint extends Endpoint {
  readonly uuid?: string
}

const offers: { readonly [N in ResourceName]: Offer<N> } = {
  volumes,
  pools,
  spreadPools,
  snapshots,
  consistencyGroups,
  mappings,
  mirrors,
  fileServices,
  shares,
  drives,
  interfaces,
  switchPorts,
  nodes,
  clusters,
  tasks,
  metrics,
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
    async of<N extends ResourceName>(name: N): Promise<SystemResources[N]> {
      return offers[name]({ connection, map: await map() })
    },
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
    watch: async (ears, until) => watch(connection, (await map()).eventService, ears, until),
    certificateEndsAt: () => connection.certificateEndsAt(),
    changesSent: () => connection.changesSent,
    signOut: () => connection.signOut(),
  }
}
