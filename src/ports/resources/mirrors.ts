export interface MirrorSeen {
  /** Hosts read and write the source; the target follows. */
  readonly role: 'source' | 'target'
  readonly state: 'filling' | 'alike' | 'broken'
  /** Serial of the system where the other end stands; null where this one does not say. */
  readonly partner: string | null
  /** Where the other end stands there; null where this one does not say. It is asked for only at the system of that serial. */
  readonly otherLocator: string | null
}

export interface MirrorWanted {
  /** Serial of the system to which it is mirrored. */
  readonly partner: string
  /** There. */
  readonly poolLocator: string
  readonly name: string
  /** Of the drives' and the line's rate that filling may take. */
  readonly ratePercent: number
}

/**
 * Volumes that are kept alike on two systems, under one WWN, each write reaching both before it is acknowledged. A volume has one such
 * mirror at most, so that what has been asked for is found again by the volume.
 */
export interface Mirrors {
  /** Undefined for a volume that stands alone, or is gone. */
  readonly of: (volumeLocator: string) => Promise<MirrorSeen | undefined>
  /** Where a volume stands that follows the volume of a WWN, or has followed it and is left behind; undefined where none does. */
  readonly follower: (naa: string) => Promise<string | undefined>
  /** @returns the task that fills it. @throws {OtherObject | NotOffered} */
  readonly begin: (volumeLocator: string, expectedNaa: string, wanted: MirrorWanted) => Promise<string | null>
  /**
   * Fills one that is broken again: asked of the source. What the other end holds besides is given up.
   * @returns the task that fills it. @throws {OtherObject | NotOffered}
   */
  readonly refill: (volumeLocator: string, expectedNaa: string, ratePercent: number) => Promise<string | null>
  /** The latest task that worked on a volume. */
  readonly workOn: (volumeLocator: string) => Promise<string | null>
  /** Lets the other end take over: asked of the source. @throws {OtherObject | NotOffered} */
  readonly reverse: (volumeLocator: string, expectedNaa: string) => Promise<void>
  /** Ends it: the target keeps what it holds, under a WWN of its own. @throws {OtherObject | NotOffered} */
  readonly part: (volumeLocator: string, expectedNaa: string) => Promise<void>
}
