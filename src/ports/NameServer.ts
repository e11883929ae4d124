/** What a name server answers; `why` where it knows nothing, such as `NXDOMAIN`. */
export interface NamesFound {
  readonly answers: readonly string[]
  readonly why: string | null
}

export interface NameServer {
  /** Addresses of a name, of both families. */
  readonly forward: (name: string) => Promise<NamesFound>
  /** Names of an address. */
  readonly reverse: (address: string) => Promise<NamesFound>
}
