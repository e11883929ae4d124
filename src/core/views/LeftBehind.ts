/** Why something is thought to be left behind. */
export const leftWhys = ['unseen', 'idle', 'not growing', 'without a rule'] as const
export type LeftWhy = (typeof leftWhys)[number]

/** After how many days without a request, or without being looked after, something counts. */
export const leftDays = [7, 30, 90] as const
export type LeftDays = (typeof leftDays)[number]

export interface LeftLine {
  /** Of the volume, or of the snapshot. */
  readonly id: string
  readonly volumeId: string
  /** Of the volume; of a snapshot its own beside it. */
  readonly name: string
  readonly snapshotName: string | null
  readonly poolName: string
  /** Since when, ISO 8601; null where it was never otherwise as far as is known. */
  readonly since: string | null
  /** What would come back. */
  readonly bytes: number
}

export interface LeftList {
  readonly why: LeftWhy
  readonly count: number
  readonly bytes: number
  /** The largest. */
  readonly lines: readonly LeftLine[]
}

/** What takes space and serves nobody, as far as can be seen. */
export interface LeftBehind {
  readonly days: LeftDays
  readonly lists: readonly LeftList[]
}
