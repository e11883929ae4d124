import type { ReactNode } from 'react'

/** A column of a table whose rows are all at hand. */
export interface TableColumn<Row> {
  readonly id: string
  readonly head: string
  /** Its width, as a track of a CSS grid. */
  readonly track: string
  /** What it says: shown where `cell` is left out, searched by the filter, and written as CSV. */
  readonly text: (row: Row) => string
  /** What it is sorted by; its text where left out. */
  readonly order?: (row: Row) => number | bigint | string
  readonly cell?: (row: Row) => ReactNode
  readonly isNumber?: boolean
  readonly isAtFirstHidden?: boolean
}
