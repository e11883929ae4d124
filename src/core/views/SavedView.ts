/** A list as somebody has named it: where it stands, and by which words of its address it is sorted, filtered and drawn. */
export interface SavedView {
  readonly id: string
  readonly path: string
  readonly name: string
  /** The address's query, without the question mark. */
  readonly query: string
  readonly madeBy: string
}
