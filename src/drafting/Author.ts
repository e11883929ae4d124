/** Who does something to a change, and from where; Wendrel itself from nowhere. */
export interface Author {
  readonly name: string
  readonly address: string | null
}

/** Wendrel, where it drafts by itself. */
export const wendrel: Author = { name: 'Wendrel', address: null }
