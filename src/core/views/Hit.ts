/** An object, or a change, that a search has found. */
export interface Hit {
  /** What it is, in words: `volume`, or `change`. */
  readonly kind: string
  readonly id: string
  readonly name: string
  readonly detail: string
  readonly systemId: string | null
}
