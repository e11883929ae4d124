import type { Made } from '../Made'

export interface SnapshotSeen {
  readonly locator: string
  readonly name: string
  readonly naa: string
  readonly sizeBytes: bigint
  /** The moment that it holds; null where the system does not say. */
  readonly takenAt: string | null
  readonly isConsistent: boolean
  /** The task that works on it, while or after it runs. */
  readonly task: string | null
}

/**
 * Snapshots of volumes, and the clones that are made of them. What is made bears no mark but its name, which is unique among the
 * snapshots of a volume and the clones of a snapshot: so it is looked for by that before it is made.
 */
export interface Snapshots {
  /** What a volume's snapshot of a name, or a snapshot's clone of a name, is; undefined where there is none. */
  readonly named: (sourceLocator: string, name: string) => Promise<Made | undefined>
  /** @throws {OtherObject} where another volume stands there than the one that is expected */
  readonly take: (volumeLocator: string, expectedNaa: string, poolLocator: string, name: string) => Promise<Made>
  readonly at: (locator: string) => Promise<SnapshotSeen | undefined>
  /** One that is gone already is removed. @throws {OtherObject} */
  readonly remove: (locator: string, expectedNaa: string) => Promise<void>
  /** @throws {OtherObject} */
  readonly clone: (snapshotLocator: string, expectedNaa: string, poolLocator: string, name: string) => Promise<Made>
  /** Lets a clone stand alone. @returns the task */
  readonly split: (snapshotLocator: string, cloneLocator: string) => Promise<string | null>
  /** Whether a clone still shares with a snapshot. */
  readonly isShared: (cloneLocator: string) => Promise<boolean>
  /** Takes a volume back to what a snapshot of it holds. @returns the task. @throws {OtherObject} */
  readonly restore: (volumeLocator: string, expectedNaa: string, snapshotLocator: string) => Promise<string | null>
  /** The latest task that worked on a volume. */
  readonly workOn: (volumeLocator: string) => Promise<string | null>
}
