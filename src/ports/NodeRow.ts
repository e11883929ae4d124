import type { SpreadSchemeText, StorageInterface } from '@/core/estate'
import type { Made } from './Made'

export interface InterfaceWanted {
  readonly mtu: number
  readonly storage: Omit<StorageInterface, 'isReserved'>
}

export interface InterfaceSeen {
  readonly mtu: number
  readonly storage: StorageInterface | null
}

export interface BankWanted {
  readonly number: number
  readonly nodeLocator: string
  readonly cacheLocator: string
  readonly capacityLocators: readonly string[]
}

export interface ClusterPoolWanted {
  readonly name: string
  readonly scheme: SpreadSchemeText
  readonly domain: 'node' | 'enclosure' | 'rack'
  readonly banks: readonly BankWanted[]
  readonly keepsRebuildReserve: boolean
  readonly snapshotReserveRatio: number
}

export interface ClusterSeen {
  readonly locator: string
  readonly name: string
  readonly isReady: boolean
  readonly nodeLocators: readonly string[]
  /** The task that forms it, while or after it runs. */
  readonly task: string | null
}

/** Long work that a cluster does on a pool by itself or when told to. */
export interface PoolWork {
  readonly locator: string
  readonly kind: 'rebuild' | 'move'
  readonly state: 'running' | 'done' | 'failed'
  readonly doneRatio: number
  /** By the system's own clock; null where it does not say. */
  readonly startedAt: string | null
  readonly endedAt: string | null
}

/** What a row of bare nodes takes besides what every storage system does. All calls are safe to repeat, or are looked up by key first. */
export interface NodeRow {
  readonly interfaceAt: (locator: string) => Promise<InterfaceSeen>
  readonly setInterface: (locator: string, wanted: InterfaceWanted) => Promise<void>
  readonly clearInterface: (locator: string) => Promise<void>
  readonly setSwitchPort: (
    locator: string,
    wanted: { readonly mtu: number; readonly vlans: readonly number[] },
  ) => Promise<void>
  readonly switchPortAt: (locator: string) => Promise<{ readonly mtu: number; readonly vlans: readonly number[] }>
  readonly setRestartService: (nodeLocator: string, isOn: boolean) => Promise<void>
  readonly isRestartServiceOn: (nodeLocator: string) => Promise<boolean>
  readonly isAnswering: (nodeLocator: string) => Promise<boolean>
  /** Lets a node take its time from the row's own source from now on. */
  readonly followRowTime: (nodeLocator: string) => Promise<void>
  /** Its clock less the row's, in seconds. */
  readonly clockOffsetSeconds: (nodeLocator: string) => Promise<number>
  readonly setLight: (driveLocator: string, isOn: boolean) => Promise<void>
  readonly isLit: (driveLocator: string) => Promise<boolean>
  /**
   * Erases tables and heads of file systems, or every sector. @returns the task
   * @throws {OtherObject} where another drive is in that bay than the one that is expected
   */
  readonly eraseDrive: (driveLocator: string, expectedSerial: string, isWhole: boolean) => Promise<string | null>
  /** The latest task that erases or has erased a drive. */
  readonly erasing: (driveLocator: string) => Promise<string | null>
  readonly cluster: () => Promise<ClusterSeen | undefined>
  readonly formCluster: (name: string, nodeLocators: readonly string[], key: string) => Promise<Made>
  readonly setClusterMembers: (nodeLocators: readonly string[]) => Promise<void>
  /** @throws {OtherObject} where the cluster has another name than the one that is expected */
  readonly dissolveCluster: (expectedName: string) => Promise<void>
  readonly createClusterPool: (wanted: ClusterPoolWanted, key: string) => Promise<Made>
  readonly banksOf: (poolLocator: string) => Promise<readonly BankWanted[]>
  readonly addDrives: (poolLocator: string, banks: readonly BankWanted[], rateRatio: number) => Promise<string | null>
  readonly removeDrives: (
    poolLocator: string,
    driveLocators: readonly string[],
    rateRatio: number,
  ) => Promise<string | null>
  /** The task that moves pieces of a pool now, if one does. */
  readonly movingPieces: (poolLocator: string) => Promise<string | null>
}
