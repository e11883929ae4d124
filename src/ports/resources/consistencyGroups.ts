import type { Made } from '../Made'
import type { SnapshotSeen } from './snapshots'

export interface ConsistencyGroupSeen {
  readonly locator: string
  readonly name: string
  readonly volumeLocators: readonly string[]
}

/** Groups of volumes whose snapshots are of one instant. */
export interface ConsistencyGroups {
  readonly byKey: (key: string) => Promise<Made | undefined>
  readonly form: (name: string, volumeLocators: readonly string[], key: string) => Promise<Made>
  readonly at: (locator: string) => Promise<ConsistencyGroupSeen | undefined>
  /** The volumes stay. One that is gone already is dissolved. @throws {OtherObject} where another group stands there */
  readonly dissolve: (locator: string, expectedName: string) => Promise<void>
  /** Takes snapshots of all its volumes at one instant. @returns the task. @throws {OtherObject} */
  readonly take: (locator: string, expectedName: string, name: string) => Promise<string | null>
  /** The snapshots of its volumes that bear a name, in the order of the volumes, whoever took them. */
  readonly taken: (locator: string, name: string) => Promise<readonly SnapshotSeen[]>
}
