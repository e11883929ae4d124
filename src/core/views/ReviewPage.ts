import type { ReviewedLine, ReviewLine } from '../access'
import type { Share } from '../estate'

/** A look at all rights of a share, as it was kept. */
export interface Review {
  readonly id: string
  readonly shareId: string
  readonly at: string
  readonly madeBy: string
  readonly note: string
  readonly lines: readonly ReviewedLine[]
}

/** Shares with the latest review of each. */
export interface ReviewList {
  readonly shares: readonly {
    readonly share: Share
    readonly lines: readonly ReviewLine[]
    readonly latest: Review | null
  }[]
  readonly shareCount: number
}

/** Who is behind a grant, through groups within groups too. */
export interface Behind {
  readonly who: string
  readonly people: number
  /** The first of them, by name. */
  readonly names: readonly string[]
}

/** All rights of one share, who is behind each, and what was decided before. */
export interface ReviewPage {
  readonly share: Share
  readonly lines: readonly ReviewLine[]
  readonly behind: readonly Behind[]
  /** The latest first. */
  readonly reviews: readonly Review[]
}
