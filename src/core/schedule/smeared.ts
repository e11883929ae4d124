/** A number of 32 bits from a text, every bit of which depends on every other. Sources: Fowler–Noll–Vo, FNV-1a; MurmurHash3's finalizer. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5
  for (let index = 0; index < text.length; index += 1) {
    hash ^= text.charCodeAt(index)
    hash = Math.imul(hash, 0x01000193)
  }
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b)
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35)
  return (hash ^ (hash >>> 16)) >>> 0
}

/**
 * When something begins that is due together with many others: within a tolerance after it is due, always at the same distance for the
 * same thing, so that peaks flatten and every interval keeps its length.
 */
export const smeared = (due: Date, of: string, toleranceSeconds: number): Date =>
  new Date(due.getTime() + Math.floor((hashOf(of) / 2 ** 32) * toleranceSeconds) * 1000)

/** Hours of the day, local: from one to another, over midnight where the first is the later. */
export interface QuietHours {
  readonly from: number
  readonly to: number
}

/** Whether a local hour (0 to 24, with its fraction) is in a quiet window. */
export const isQuiet = (hour: number, { from, to }: QuietHours): boolean =>
  from <= to ? hour >= from && hour < to : hour >= from || hour < to
