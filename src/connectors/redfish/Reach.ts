import type { ResourceName, SystemResources } from '@/ports'
import type { Connection } from './Connection'
import type { ServiceMap } from './service/serviceMap'

/** The way to a system, and where its parts stand. */
export interface Reach {
  readonly connection: Connection
  readonly map: ServiceMap
}

/** Offers a resource of a system. @throws {NotOffered} where the system has it not */
export type Offer<N extends ResourceName> = (reach: Reach) => SystemResources[N]

export const reference = (locator: string) => ({ '@odata.id': locator })
