export interface Credentials {
  readonly userName: string
  readonly password: string
}

/** Something that a system states and that could not be used; the rest of its answer could. */
export interface Skipped {
  readonly locator: string
  readonly why: string
}

/** What one sign-in gives, shared by all that speak to the system at the same time. */
export interface Session {
  token: string | undefined
  locator: string | undefined
  signingIn: Promise<string> | undefined
  /** Whether the system can put members into their collection; undefined until it has been asked. */
  canExpand: boolean | undefined
  /** Whether it can give a part of them. */
  canSkip: boolean | undefined
}

/** Nobody has signed in yet. */
export const notSignedIn = (): Session => ({
  token: undefined,
  locator: undefined,
  signingIn: undefined,
  canExpand: undefined,
  canSkip: undefined,
})
