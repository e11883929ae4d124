import type { Finding } from '../findings'
import { isQuietNow } from './quiet'
import type { Rule } from '../estate'

/** Something that a rule is about, and that stands now. */
export interface Matter {
  /** The same each time the same thing is so. */
  readonly key: string
  readonly gravity: Finding['gravity']
  readonly title: string
  readonly why: string
  readonly remedy: string
  /** The page that shows it. */
  readonly href: string
}

/** What is kept of a matter while it stands, and for a while afterwards. */
export interface Standing {
  readonly key: string
  /** As it was seen last. */
  readonly matter: Matter
  /** Milliseconds since 1970. */
  readonly since: number
  /** When it was told; null until then. */
  readonly toldAt: number | null
  /** Since when it no longer stands; null while it does. */
  readonly goneSince: number | null
  /** How often it came back before it was told that it is over. */
  readonly returns: number
}

export interface Judged {
  /** What begins to be told. */
  readonly begun: readonly Standing[]
  /** What is over. */
  readonly ended: readonly Standing[]
  /** All that is to be kept now. */
  readonly kept: readonly Standing[]
}

/** What is over is told once it has been so for as long as it had to stand before it was told, and at least so long. */
const leastCalmMinutes = 5
const minute = 60_000

/**
 * What is to be told by a rule now. A matter is told once it has stood for the rule's minutes, and not in quiet times; what goes and comes
 * back within its calm is the same matter, is counted, and is not told again.
 */
export function judge(rule: Rule, matters: readonly Matter[], known: readonly Standing[], now: Date): Judged {
  const at = now.getTime()
  const isQuiet = isQuietNow(rule, now)
  const mayTell = ({ gravity }: Matter) => !isQuiet || (rule.isUrgentAlways && gravity === 'now')
  const calm = Math.max(rule.minutes, leastCalmMinutes) * minute
  const standing = new Map(matters.map(matter => [matter.key, matter]))
  const begun: Standing[] = []
  const ended: Standing[] = []
  const kept: Standing[] = []
  const before = new Map(known.map(each => [each.key, each]))
  for (const [key, matter] of standing) {
    const was = before.get(key) ?? { key, matter, since: at, toldAt: null, goneSince: null, returns: 0 }
    const isBack = was.goneSince !== null
    const now: Standing = { ...was, matter, goneSince: null, returns: was.returns + (isBack ? 1 : 0) }
    if (now.toldAt === null && at - now.since >= rule.minutes * minute && mayTell(matter)) {
      const told = { ...now, toldAt: at }
      begun.push(told)
      kept.push(told)
    } else kept.push(now)
  }
  for (const was of known) {
    if (standing.has(was.key)) continue
    // What was never told needs no end.
    if (was.toldAt === null) continue
    const goneSince = was.goneSince ?? at
    if (at - goneSince >= calm && mayTell(was.matter)) ended.push({ ...was, goneSince })
    else kept.push({ ...was, goneSince })
  }
  return { begun, ended, kept }
}
