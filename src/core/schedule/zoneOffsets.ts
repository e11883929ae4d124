import { IANAZone } from 'luxon'

const hourMilliseconds = 3_600_000
/** Clocks of a zone change at most a few times a year; between two looks so far apart no change is missed that is not undone. */
const lookMilliseconds = 7 * 24 * hourMilliseconds
/** So far beyond what is asked for it is looked at at once: what is asked next lies mostly a little later, and would begin anew. */
const aheadMilliseconds = 53 * lookMilliseconds

/** From when on a zone's clocks stand so far from UTC (milliseconds). */
interface Offset {
  readonly since: number
  readonly offset: number
}

const known = new Map<string, { from: number; to: number; offsets: Offset[] }>()

/** The clock changes of a zone within a span, found by halving; remembered, since asking the zone is what costs. */
function offsetsOf(timeZone: string, from: number, to: number): readonly Offset[] {
  const had = known.get(timeZone)
  if (had !== undefined && had.from <= from && had.to >= to) return had.offsets
  const zone = IANAZone.create(timeZone)
  const offsetAt = (at: number) => zone.offset(at) * 60_000
  const begin = Math.min(from, had?.from ?? from) - lookMilliseconds
  const end = Math.max(to, had?.to ?? to) + aheadMilliseconds
  const offsets: Offset[] = [{ since: -Infinity, offset: offsetAt(begin) }]
  for (let at = begin; at < end; at += lookMilliseconds) {
    let before = at
    let after = at + lookMilliseconds
    if (offsetAt(before) === offsetAt(after)) continue
    while (after - before > 1000) {
      const middle = Math.floor((before + after) / 2000) * 1000
      if (middle <= before) break
      if (offsetAt(middle) === offsetAt(before)) before = middle
      else after = middle
    }
    offsets.push({ since: after, offset: offsetAt(after) })
  }
  known.set(timeZone, { from: begin, to: end, offsets })
  return offsets
}

const dayMilliseconds = 24 * hourMilliseconds

/**
 * The instant of a local time. One that clocks skip in spring is read with the offset before the gap; of one that they repeat in
 * autumn it is the first.
 * @param local milliseconds, as if the local time were UTC
 * @returns milliseconds since 1970, UTC
 */
export function instantOf(local: number, timeZone: string): number {
  const offsets = offsetsOf(timeZone, local - 2 * dayMilliseconds, local + 2 * dayMilliseconds)
  let before = offsets[0]?.offset ?? 0
  for (const [index, { offset }] of offsets.entries()) {
    const at = local - offset
    const next = offsets[index + 1]
    if (at >= (offsets[index]?.since ?? 0) && (next === undefined || at < next.since)) return at
    // Past this span by its own offset, before the next by that one's: the local time is in the gap between them.
    if (next !== undefined && at >= next.since && local - next.offset < next.since) return local - offset
    before = offset
  }
  return local - before
}

/** How far a zone's clocks stand from UTC at an instant (milliseconds). */
export function offsetAt(instant: number, timeZone: string): number {
  const offsets = offsetsOf(timeZone, instant, instant)
  return offsets.findLast(({ since }) => since <= instant)?.offset ?? 0
}

/** Whether a zone of that name is known. Source: IANA time zone database. */
export const isZone = (timeZone: string): boolean => IANAZone.isValidZone(timeZone)
