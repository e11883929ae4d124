/** What every refusal says: what did not happen, which rule binds, and the way out. */
export interface Refusal {
  readonly what: string
  readonly why: string
  readonly remedy: string
}

/** The root of all errors of Wendrel's own. `code` is stable and listed in docs/errors.md. */
export abstract class WendrelError extends Error implements Refusal {
  abstract readonly code: string
  readonly what: string
  readonly why: string
  readonly remedy: string

  constructor({ what, why, remedy }: Refusal, options?: ErrorOptions) {
    super(`${what} ${why}`, options)
    this.name = new.target.name
    this.what = what
    this.why = why
    this.remedy = remedy
  }
}
