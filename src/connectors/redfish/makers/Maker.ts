import type { ShareGrant } from '@/core/access'
import type { Drive, Snapshot, VolumeLimits } from '@/core/estate'
import type {
  BankWanted,
  ClusterPoolWanted,
  ShareLimitsWanted,
  ShareRightsWanted,
  ShareSeen,
  SignInAsked,
  SignInSecrets,
} from '@/ports'

/** How a pool spreads its pieces over banks. */
export interface SpreadStated {
  readonly scheme: ClusterPoolWanted['scheme']
  readonly domain: ClusterPoolWanted['domain']
  readonly rawBytes: bigint
  readonly rebuildReserveBytes: bigint
  readonly strandedBytes: bigint
  readonly banks: readonly BankWanted[]
}

/** Resources of which makers state more than the standard, and which cannot be used where that is not what it should be. */
export type OwnPart = 'endpoint' | 'drive' | 'computer' | 'interface' | 'switchPort' | 'volume' | 'share' | 'storage'

/**
 * What one maker states and takes beyond the standard, in Wendrel's terms. Each reading gets the maker's own part of a resource
 * (`Oem.<maker>`); one that could not be used has not come so far. A reading that is missing is of what the maker states nothing of.
 */
export interface Maker {
  /** Schemas of the own parts of resources, by which a resource with a bad one is left out and told of, as any bad member is. */
  readonly parts: Readonly<Partial<Record<OwnPart, object>>>
  readonly drive?: (own: unknown) => Pick<Drive, 'isBoot' | 'driveWritesPerDay' | 'leftOver'>
  readonly computer?: (own: unknown) => { readonly mostCapacityDrives: number; readonly agentAddress: string | null }
  readonly interface?: (own: unknown) => {
    readonly carriesStorage: boolean
    readonly traffic: readonly string[]
    readonly isReserved: boolean
  }
  readonly vlans?: (own: unknown) => readonly number[]
  readonly lostBytes?: (own: unknown) => bigint
  /** What a volume may be asked for; undefined where its system takes no limits. */
  readonly volumeLimits?: (own: unknown) => VolumeLimits | undefined
  readonly volumeLimitsPart?: (limits: VolumeLimits) => object
  /** What is asked of an initiator where it logs in; undefined where that is not told. */
  readonly signIn?: (own: unknown) => SignInAsked | undefined
  readonly signInPart?: (secrets: SignInSecrets | null) => object
  /** Undefined for a pool that is spread over nothing. */
  readonly spread?: (own: unknown) => SpreadStated | undefined
  /** Undefined for a task that moves no pieces. */
  readonly work?: (own: unknown) => { readonly kind: 'rebuild' | 'move'; readonly bytes: bigint } | undefined
  /** What a snapshot is the first to hold, by the last that holds it too. */
  readonly heldUntil?: (own: unknown) => Snapshot['heldUntil']
  /** Where its file services stand, and on what they can; undefined for storage that serves no files. */
  readonly fileService?: (own: unknown) => { readonly locator: string; readonly units: readonly string[] } | undefined
  readonly shareRights?: (own: unknown) => ShareRightsWanted | undefined
  /** Of the file service of a share, as the share states them. */
  readonly serviceGrants?: (own: unknown) => ShareGrant[]
  readonly sharePart?: (rights: ShareRightsWanted) => object
  readonly shareLimits?: (own: unknown) => Pick<ShareSeen, 'quotas' | 'fileRules' | 'quotaUsage'>
  readonly limitsPart?: (limits: ShareLimitsWanted) => object
  /** Where hosts find snapshots of a share; undefined where nowhere. */
  readonly snapshotDirectory?: (own: unknown) => ShareSeen['snapshotDirectory'] | undefined
  readonly snapshotDirectoryPart?: (isShown: boolean) => object
  /** How much of the drives' rate a move may take; undefined for a maker that takes no such wish. */
  readonly moveRate?: (ratePercent: number) => object
  /** Serials of the systems with which its storage has been paired. */
  readonly partners?: (own: unknown) => readonly string[]
  /** Serial of the system where the other end of a volume's mirror stands; undefined for a volume that has none. */
  readonly mirrorPartner?: (own: unknown) => string | undefined
  /** What a request for a replica adds where it is to be a mirror on a partner. */
  readonly mirrorPart?: (partner: string, ratePercent: number) => object
  /** What this maker's own parts of requests are; undefined for a maker that has no nodes. */
  readonly requests?: OwnRequests
}

/** A maker's own parts of the requests that a row of nodes takes. */
export interface OwnRequests {
  readonly carriesStorage: (isOn: boolean) => object
  readonly vlans: (vlans: readonly number[]) => object
  readonly spreadPool: (wanted: ClusterPoolWanted) => object
  readonly addDrives: (banks: readonly BankWanted[], rateRatio: number) => object
  readonly removeDrives: (rateRatio: number) => object
}
