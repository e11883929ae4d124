import type { ReactNode } from 'react'

export type NameOf = (id: string) => string | undefined

/** A column of a table whose rows stand at the server. */
export interface ServerColumn<Row> {
  readonly id: string
  readonly head: string
  /** Its width, as a track of a CSS grid. */
  readonly track: string
  /** By what the server sorts for it; it cannot be sorted by where left out. */
  readonly sort?: string
  /** What it says: shown where `cell` is left out, and written as CSV. */
  readonly text: (row: Row, nameOf: NameOf) => string
  readonly cell?: (row: Row, nameOf: NameOf) => ReactNode
  readonly isNumber?: boolean
  readonly isAtFirstHidden?: boolean
}
