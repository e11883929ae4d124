export interface MappingMade {
  readonly locator: string
  readonly lun: number
}

export interface MappingExpected {
  readonly volumeLocator: string
  readonly groupName: string
}

export interface MappingSeen {
  readonly locator: string
  readonly groupName: string
  readonly lun: number
}

/** By what a host proves itself where it logs in, and by what its systems do. */
export interface SignInSecrets {
  readonly secret: string
  /** Null where systems need not prove themselves. */
  readonly systemSecret: string | null
}
export type SignInAsked = 'nothing' | 'one-way' | 'mutual'

/** Which volumes are shown to which groups of initiators. */
export interface Mappings {
  /** Shows a volume to a group, which then has at least these initiators; what exists already is used. */
  readonly make: (
    volumeLocator: string,
    groupName: string,
    initiators: readonly string[],
    key: string,
    /** Such as a snapshot, which is read and never written. */
    isReadOnly?: boolean,
  ) => Promise<MappingMade>
  readonly of: (volumeLocator: string) => Promise<readonly MappingSeen[]>
  /** Whether a mapping was made under a key, however often and by whichever process. */
  readonly isMadeBy: (mappingLocator: string, key: string) => Promise<boolean>
  /** @throws {OtherObject} where the mapping is of another volume or group than is expected */
  readonly remove: (mappingLocator: string, expected: MappingExpected) => Promise<void>
  /** Names of the initiators that a group has now; none where there is no such group. */
  readonly initiatorsOf: (groupName: string) => Promise<readonly string[]>
  /** What is asked of an initiator by CHAP where it logs in; undefined for one that the system does not know, or of which it tells nothing. */
  readonly signInOf: (initiator: string) => Promise<SignInAsked | undefined>
  /** Asks an initiator to prove itself from its next login on; null asks for nothing. @throws {NotOffered} where the system has no words for it */
  readonly setSignIn: (initiator: string, secrets: SignInSecrets | null) => Promise<void>
  /** The names by which hosts log in. */
  readonly targets: () => Promise<readonly string[]>
}
