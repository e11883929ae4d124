/** An object that a search has found. */
export interface Hit {
  readonly kind: 'system' | 'pool' | 'volume' | 'host' | 'drive' | 'change'
  readonly id: string
  readonly name: string
  readonly detail: string
  readonly systemId: string | null
}
