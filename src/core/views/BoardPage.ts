import type { LaneAsked, Left } from '../board'
import type { MeasuredKind, MetricName } from '../metrics'

/** A series by name, with what it is of. */
export interface SeriesNamed {
  readonly metric: MetricName
  readonly objectId: string
  readonly kind: MeasuredKind
  readonly name: string
}

/** From where to where, step by step; null where nothing was measured. */
export interface BoardBand {
  readonly low: readonly (number | null)[]
  readonly high: readonly (number | null)[]
}

/** A series as it is drawn; null where nothing was measured. */
export interface Course {
  readonly values: readonly (number | null)[]
  /** The least and the most of each step; null where a step has one value at most. */
  readonly extremes: BoardBand | null
}

/** One lane as it is drawn. */
export interface Lane extends Course {
  readonly asked: LaneAsked
  /** Undefined where the object is not there any more. */
  readonly of: SeriesNamed | undefined
  readonly over: (Course & { readonly of: SeriesNamed | undefined }) | null
  /** The same series of some days before. */
  readonly shifted: Course | null
  readonly usual: BoardBand | null
  readonly left: readonly Left[]
}

/** Something that happened to an object of the board. */
export interface BoardEvent {
  readonly at: number
  /** When it was over; null where it is a moment, or goes on. */
  readonly until: number | null
  readonly kind: 'change' | 'finding'
  readonly gravity: 'now' | 'soon' | 'note' | 'fine'
  readonly words: string
  readonly href: string
}

/** A lane, or a series that is not on the board yet, that moves with the chosen one. */
export interface MovesWith {
  readonly of: SeriesNamed
  readonly strength: number
  readonly lagMinutes: number
  readonly isTold: boolean
  readonly byLag: readonly number[]
}

export interface BoardPage {
  readonly from: number
  readonly until: number
  /** The middle of each step (milliseconds since 1970). */
  readonly times: readonly number[]
  readonly lanes: readonly Lane[]
  readonly events: readonly BoardEvent[]
  readonly moving: readonly MovesWith[]
}
