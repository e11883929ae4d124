import type { RaidSchemeText } from '@/core/estate'
import type { Made } from './Made'
import type { NodeRow } from './NodeRow'
import type { Inventory, InventoryParts, SystemIdentity } from './Inventory'

/** Long work that a system answers with a task resource. */
export interface SystemTask {
  readonly locator: string
  /** `gone`: the system no longer knows it, which says nothing of its work. */
  readonly state: 'running' | 'done' | 'failed' | 'gone'
  readonly doneRatio: number
  readonly why: string
  /** By the system's own clock; null where it does not say. */
  readonly startedAt: string | null
  readonly endedAt: string | null
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
  /** The task that works on it, while or after it runs. */
  readonly task: string | null
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
  /** @throws {OtherObject} where another pool stands there than the one that is expected */
  readonly removePool: (locator: string, expectedName: string) => Promise<void>
  readonly volumeByKey: (key: string) => Promise<Made | undefined>
  readonly createVolume: (wanted: VolumeWanted, key: string) => Promise<Made>
  readonly volume: (locator: string) => Promise<VolumeSeen | undefined>
  /** @throws {OtherObject} where another volume stands there than the one that is expected */
  readonly enlargeVolume: (locator: string, expectedNaa: string, sizeBytes: bigint) => Promise<Made>
  /** @throws {OtherObject} where another volume stands there than the one that is expected */
  readonly renameVolume: (locator: string, expectedNaa: string, name: string) => Promise<void>
  /** @throws {OtherObject} where another volume stands there than the one that is expected */
  readonly removeVolume: (locator: string, expectedNaa: string) => Promise<void>
  readonly mapVolume: (
    volumeLocator: string,
    groupName: string,
    initiators: readonly string[],
    key: string,
  ) => Promise<MappingMade>
  readonly mappingsOf: (volumeLocator: string) => Promise<readonly MappingSeen[]>
  /** @throws {OtherObject} where the mapping is of another volume or group than is expected */
  readonly unmapVolume: (mappingLocator: string, expected: MappingExpected) => Promise<void>
  /** Names of the initiators that a group of the system has now; none where it has no such group. */
  readonly groupInitiators: (groupName: string) => Promise<readonly string[]>
  readonly targets: () => Promise<readonly string[]>
  /** What only a row of bare nodes takes; a system without nodes refuses these calls. */
  readonly row: NodeRow
  readonly task: (locator: string) => Promise<SystemTask>
  /** Calls back whenever the system says that something has changed, with where if it says so, until stopped. */
  readonly watch: (changed: (origins: readonly string[]) => void, stop: AbortSignal) => Promise<void>
  /** What stands at some places now; undefined where it cannot be told without reading the whole system. */
  readonly parts: (locators: readonly string[]) => Promise<InventoryParts | undefined>
  /** Ends what was opened at the system by signing in. */
  readonly signOut: () => Promise<void>
}

export interface MappingExpected {
  readonly volumeLocator: string
  readonly groupName: string
}

export interface MappingSeen {
  readonly locator: string
  readonly groupName: string
  readonly lun: number
}
