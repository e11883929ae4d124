/** A name by which somebody logs in, and of whom no registered host is known. */
export interface UnknownInitiator {
  readonly initiator: string
  /** By name. */
  readonly systems: readonly string[]
  /** Groups in which systems have it: what they are shown, it sees. Empty where it is shown nothing. */
  readonly groups: readonly string[]
}

export interface UnknownHosts {
  /** Those that see something first. */
  readonly items: readonly UnknownInitiator[]
  readonly total: number
}
