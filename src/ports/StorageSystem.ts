import type { RaidSchemeText } from '@/core/estate'
import type { Made } from './Made'
import type { NodeRow } from './NodeRow'
import type { Inventory, SystemIdentity } from './Inventory'

/** Long work that a system answers with a task resource. */
export interface SystemTask {
  readonly locator: string
  readonly state: 'running' | 'done' | 'failed'
  readonly doneRatio: number
  readonly why: string
}

export interface PoolWanted {
  readonly name: string
  readonly scheme: RaidSchemeText
  readonly groups: readonly (readonly string[])[]
  readonly spares: readonly string[]
  readonly snapshotReserveRatio: number
}

export interface VolumeWanted {
  readonly name: string
  readonly poolLocator: string
  readonly sizeBytes: bigint
  readonly isThin: boolean
}

export interface VolumeSeen {
  readonly locator: string
  readonly name: string
  readonly naa: string
  readonly sizeBytes: bigint
  readonly isReady: boolean
}

export interface PoolSeen {
  readonly locator: string
  readonly name: string
  readonly isReady: boolean
  readonly usableBytes: bigint
  readonly driveLocators: readonly string[]
}

export interface MappingMade {
  readonly locator: string
  readonly lun: number
}

/**
 * A storage system under management. `key` marks what a step makes, so that a step that runs again finds it; all calls
 * throw typed errors that name the system, and none sends a change again by itself.
 */
export interface StorageSystem {
  readonly identity: () => Promise<SystemIdentity>
  readonly inventory: () => Promise<Inventory>
  readonly now: () => Promise<Date>
  readonly poolByKey: (key: string) => Promise<Made | undefined>
  readonly createPool: (wanted: PoolWanted, key: string) => Promise<Made>
  readonly pool: (locator: string) => Promise<PoolSeen | undefined>
  readonly removePool: (locator: string) => Promise<void>
  readonly volumeByKey: (key: string) => Promise<Made | undefined>
  readonly createVolume: (wanted: VolumeWanted, key: string) => Promise<Made>
  readonly volume: (locator: string) => Promise<VolumeSeen | undefined>
  readonly enlargeVolume: (locator: string, sizeBytes: bigint, key: string) => Promise<Made>
  readonly removeVolume: (locator: string) => Promise<void>
  readonly mapVolume: (
    volumeLocator: string,
    groupName: string,
    initiators: readonly string[],
    key: string,
  ) => Promise<MappingMade>
  readonly mappingsOf: (volumeLocator: string) => Promise<readonly MappingSeen[]>
  readonly unmapVolume: (mappingLocator: string) => Promise<void>
  readonly targets: () => Promise<readonly string[]>
  /** What only a row of bare nodes takes; a system without nodes refuses these calls. */
  readonly row: NodeRow
  readonly task: (locator: string) => Promise<SystemTask>
  /** Calls back whenever the system says that something has changed, until stopped. */
  readonly watch: (changed: () => void, stop: AbortSignal) => Promise<void>
}

export interface MappingSeen {
  readonly locator: string
  readonly groupName: string
  readonly lun: number
}
