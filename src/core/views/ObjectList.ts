/** A page of objects of a kind, with how many there are in all. */
export interface ObjectList<T> {
  readonly total: number
  readonly items: readonly T[]
  /** The names of what they refer to, by id. */
  readonly names: Readonly<Record<string, string>>
}
