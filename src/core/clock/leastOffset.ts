/**
 * How far a clock is from a reference at the least, when it was read between two readings of the reference.
 * What the readings took on their way counts for nothing: a clock within the two readings may be right.
 *
 * @param before the reference, read before the clock
 * @param read the clock
 * @param after the reference, read after the clock
 * @returns milliseconds, positive where the clock is ahead; 0 where it may be right
 */
export function leastOffset(before: Date, read: Date, after: Date): number {
  const [early, late, at] = [before.getTime(), after.getTime(), read.getTime()]
  if (at < early) return at - early
  return at > late ? at - late : 0
}
