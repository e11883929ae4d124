import type { Made } from '../Made'

/** The computers of a row. All calls are safe to repeat. */
export interface Nodes {
  readonly isAnswering: (locator: string) => Promise<boolean>
  readonly setRestartService: (locator: string, isOn: boolean) => Promise<void>
  readonly isRestartServiceOn: (locator: string) => Promise<boolean>
  /** Lets a node take its time from the row's own source from now on. */
  readonly followRowTime: (locator: string) => Promise<void>
  /** Its clock less the row's, in seconds. */
  readonly clockOffsetSeconds: (locator: string) => Promise<number>
}

export interface ClusterSeen {
  readonly locator: string
  readonly name: string
  readonly isReady: boolean
  readonly nodeLocators: readonly string[]
  /** The task that forms it, while or after it runs. */
  readonly task: string | null
}

/** The union of nodes to a cluster, of which a row has at most one. */
export interface Clusters {
  readonly now: () => Promise<ClusterSeen | undefined>
  readonly form: (name: string, nodeLocators: readonly string[], key: string) => Promise<Made>
  readonly setMembers: (nodeLocators: readonly string[]) => Promise<void>
  /** @throws {OtherObject} where the cluster has another name than the one that is expected */
  readonly dissolve: (expectedName: string) => Promise<void>
}
