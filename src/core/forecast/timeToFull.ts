/** A line of used bytes from today on, by days ahead. */
export type LineAhead = (daysAhead: number) => number

/** The first whole day within the horizon on which a line reaches a limit; null where it does not. */
export function daysToFull(line: LineAhead, limitBytes: number, horizonDays: number): number | null {
  for (let day = 0; day <= horizonDays; day += 1) if (line(day) >= limitBytes) return day
  return null
}

export interface Filling {
  readonly id: string
  readonly usedBytes: number
  readonly limitBytes: number
  readonly daysToFull: number | null
}

const fillOf = ({ usedBytes, limitBytes }: Filling) => usedBytes / limitBytes
const isFull = ({ usedBytes, limitBytes }: Filling) => usedBytes >= limitBytes
const never = Number.POSITIVE_INFINITY

/** What is full first, then what will be soonest, then what is fullest; ties by id. */
export function rankFilling<T extends Filling>(all: readonly T[]): T[] {
  const dueOf = (each: T) => (isFull(each) ? -1 : (each.daysToFull ?? never))
  const compared = (a: number, b: number) => (a === b ? 0 : a < b ? -1 : 1)
  return all.toSorted(
    (a, b) =>
      compared(dueOf(a), dueOf(b)) || compared(fillOf(b), fillOf(a)) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0),
  )
}
