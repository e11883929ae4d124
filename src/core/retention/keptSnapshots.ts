import { offsetAt } from '../schedule'

/** How many snapshots or calendar buckets are kept; what is missing or 0 keeps nothing. */
export interface RetentionRules {
  readonly keepLast?: number | undefined
  readonly hourly?: number | undefined
  readonly daily?: number | undefined
  readonly weekly?: number | undefined
  readonly monthly?: number | undefined
  readonly yearly?: number | undefined
}
export type RetentionRule = keyof RetentionRules

/** In the order in which they are told. */
export const retentionRules = [
  'keepLast',
  'hourly',
  'daily',
  'weekly',
  'monthly',
  'yearly',
] as const satisfies readonly RetentionRule[]

interface Taken {
  readonly id: string
  readonly takenAt: Date
}

const hourMilliseconds = 3_600_000
const dayMilliseconds = 86_400_000

/** The calendar bucket in which an instant lies, in a zone. Hours that clocks repeat are two; weeks are ISO 8601's. */
function bucketOf(rule: Exclude<RetentionRule, 'keepLast'>, at: number, timeZone: string): string {
  const offset = offsetAt(at, timeZone)
  const local = at + offset
  const date = new Date(local)
  const day = Math.floor(local / dayMilliseconds)
  switch (rule) {
    case 'hourly':
      return `${Math.floor(local / hourMilliseconds)} ${offset}`
    case 'daily':
      return `${day}`
    case 'weekly':
      return `${Math.floor((day + 3) / 7)}` // 1 January 1970 was a Thursday
    case 'monthly':
      return `${date.getUTCFullYear()}-${date.getUTCMonth()}`
    case 'yearly':
      return `${date.getUTCFullYear()}`
  }
}

/**
 * Which snapshots are kept, and by which rules. Each bucket keeps its first snapshot; the newest N buckets that hold one count.
 * @returns for every snapshot, in time order, the rules that keep it; none where it may go
 */
export function keptSnapshots<T extends Taken>(
  snapshots: readonly T[],
  rules: RetentionRules,
  timeZone: string,
): { readonly snapshot: T; readonly rules: readonly RetentionRule[] }[] {
  const ordered = [...snapshots].sort((a, b) => a.takenAt.getTime() - b.takenAt.getTime())
  const kept = new Map<string, RetentionRule[]>()
  const keep = (id: string, rule: RetentionRule) => kept.set(id, [...(kept.get(id) ?? []), rule])
  for (const rule of retentionRules) {
    const count = rules[rule] ?? 0
    if (count <= 0) continue
    if (rule === 'keepLast') {
      for (const { id } of ordered.slice(-count)) keep(id, rule)
      continue
    }
    const firsts = new Map<string, string>()
    for (const { id, takenAt } of ordered) {
      const bucket = bucketOf(rule, takenAt.getTime(), timeZone)
      if (!firsts.has(bucket)) firsts.set(bucket, id)
    }
    for (const id of [...firsts.values()].slice(-count)) keep(id, rule)
  }
  return ordered.map(snapshot => ({ snapshot, rules: kept.get(snapshot.id) ?? [] }))
}
