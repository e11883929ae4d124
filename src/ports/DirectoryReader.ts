import type { Principal } from '@/core/estate'

/** Somebody as a directory states them. */
export type PrincipalSeen = Omit<Principal, 'id' | 'directoryId' | 'goneSince' | 'revision'>

export interface DirectoryReading {
  readonly principals: readonly PrincipalSeen[]
  /** Entries that could not be used, with why. */
  readonly skipped: readonly { readonly dn: string; readonly why: string }[]
  /** Until when the certificate is valid that it showed; null where it does not say. */
  readonly certificateEndsAt: Date | null
}

/** Where people and groups are kept. */
export interface DirectoryReader {
  /** Everybody below a base, page by page. @param told with how many entries have come so far */
  readonly read: (baseDn: string, told: (count: number) => Promise<void>) => Promise<DirectoryReading>
}

/** Who answers as a directory, before it has been told anything. */
export interface DirectoryIdentity {
  readonly fingerprint: string
  /** Whether a known authority signed its certificate for this name; else why not. */
  readonly certificateTrouble: string | null
  /** The bases that it has. */
  readonly baseDns: readonly string[]
  readonly maker: string | null
}
