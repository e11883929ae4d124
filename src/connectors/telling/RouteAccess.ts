/** All that is needed to tell by a route. */
export interface RouteAccess {
  readonly address: string
  readonly sender: string | null
  readonly recipients: readonly string[]
  readonly userName: string | null
  /** The key that signs, or the password; undefined where there is none. */
  readonly secret: string | undefined
  /** Networks that may be spoken to although they are barred by themselves. */
  readonly allowedNetworks: string
  /** Where Wendrel's own pages stand. */
  readonly ownAddress: string
  readonly stop: AbortSignal
}
