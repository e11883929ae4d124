const everyMilliseconds = 10_000
/**
 * A reading of a large system takes long: what it takes beyond a quick one's time may be this share of all time at most, so whole
 * readings of it follow each other more slowly; between them events tell.
 */
const mostShare = 0.017
/** The same of a processor's time, which it takes more of than it lasts: answers are unpacked and memory is tidied beside it. */
const mostProcessorShare = 0.015
const quickMilliseconds = 750
const longestMilliseconds = 120_000
/** What a system says of itself and cannot be read in parts has all of it read: of the time, that may take this share at most. */
const mostRungShare = 1 / 5

/** When a system is read whole: at intervals by what that takes, and between them when it says that something has changed. */
export class ReadingPace {
  #beganAt = 0
  #interval: number
  #restsUntil = 0

  /** @param pace how many times as often as elsewhere */
  constructor(private readonly pace: number) {
    this.#interval = everyMilliseconds / pace
  }

  isDue(now: number): boolean {
    return now - this.#beganAt > this.#interval
  }

  /** How long until the next whole reading (milliseconds). */
  untilDue(now: number): number {
    return Math.max(0, this.#beganAt + this.#interval - now)
  }

  /** How long a reading waits that the system itself has asked for: one that rings without an end is not read without an end. */
  untilRung(now: number): number {
    return this.isDue(now) ? 0 : Math.max(0, this.#restsUntil - now)
  }

  begins(now: number): void {
    this.#beganAt = now
  }

  /** @param processorMilliseconds that it took */
  ended(now: number, processorMilliseconds: number): void {
    const took = now - this.#beganAt
    const slow = Math.max(
      (took - quickMilliseconds) / mostShare,
      (processorMilliseconds - quickMilliseconds) / mostProcessorShare,
    )
    this.#interval = Math.min(longestMilliseconds, Math.max(everyMilliseconds, slow)) / this.pace
    this.#restsUntil = now + (took * (1 / mostRungShare - 1)) / this.pace
  }

  /** Of a system that may be silent it matters soon whether it is: where a part could not be read the whole is at once, then often. */
  failed(isWhole: boolean): void {
    if (!isWhole) this.#beganAt = 0
    this.#interval = everyMilliseconds / this.pace
  }
}
