import type { VolumeLimits } from '@/core/estate'
import type { Made } from '../Made'

export interface VolumeWanted {
  readonly name: string
  readonly poolLocator: string
  readonly sizeBytes: bigint
  readonly isThin: boolean
}

export interface VolumeSeen {
  readonly locator: string
  readonly name: string
  readonly naa: string
  readonly sizeBytes: bigint
  readonly isThin: boolean
  readonly isReady: boolean
  /** From which it comes now; one that is on its way comes from its old one. */
  readonly poolLocator: string
  /** Null where the system takes none. */
  readonly limits: VolumeLimits | null
  /** The task that works on it, while or after it runs. */
  readonly task: string | null
}

export interface Volumes {
  readonly byKey: (key: string) => Promise<Made | undefined>
  /** What each of several keys marks, looked for at once. */
  readonly byKeys: (keys: readonly string[]) => Promise<ReadonlyMap<string, Made>>
  readonly create: (wanted: VolumeWanted, key: string) => Promise<Made>
  readonly at: (locator: string) => Promise<VolumeSeen | undefined>
  /** @throws {OtherObject} where another volume stands there than the one that is expected */
  readonly enlarge: (locator: string, expectedNaa: string, sizeBytes: bigint) => Promise<Made>
  /**
   * Has it take all of its size at once, or only what is written of it; hosts go on.
   * @throws {OtherObject} where another volume stands there than the one that is expected
   */
  readonly convert: (locator: string, expectedNaa: string, isThin: boolean) => Promise<Made>
  /**
   * Moves it with its snapshots to another pool, while hosts go on. Systems that take no rate move at their own.
   * @param ratePercent of the drives' rate that the move may take
   * @throws {OtherObject} where another volume stands there than the one that is expected
   */
  readonly move: (locator: string, expectedNaa: string, poolLocator: string, ratePercent: number) => Promise<Made>
  /**
   * What it may be asked for; each null lifts that limit.
   * @throws {OtherObject | NotOffered} where another volume stands there than the one that is expected, or the system takes no limits
   */
  readonly limit: (locator: string, expectedNaa: string, limits: VolumeLimits) => Promise<void>
  /** @throws {OtherObject} where another volume stands there than the one that is expected */
  readonly rename: (locator: string, expectedNaa: string, name: string) => Promise<void>
  /** @throws {OtherObject} where another volume stands there than the one that is expected */
  readonly remove: (locator: string, expectedNaa: string) => Promise<void>
}
