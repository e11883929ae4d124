import type { Finding } from '../findings'
import { countWords } from '../units'
import type { Rule } from '../estate'
import type { Matter } from './judge'

/** A pool as rules look at it. */
export interface PoolFacts {
  readonly id: string
  readonly name: string
  /** Written ÷ what it can give. */
  readonly fillRatio: number
  /** Until it is likely to reach its limit; null where it is not in sight. */
  readonly daysToLimit: number | null
}

/** A volume as rules look at it. */
export interface VolumeFacts {
  readonly id: string
  readonly name: string
  /** What nineteen of twenty minutes of the last day stayed below. */
  readonly p95Milliseconds: number
}

interface Facts {
  /** What Today puts first: causes only, what they explain beneath them. */
  readonly findings: readonly {
    readonly key: string
    readonly gravity: Finding['gravity']
    readonly what: string
    readonly why: string
    readonly remedy: string
    readonly href: string
  }[]
  readonly pools: readonly PoolFacts[]
  readonly volumes: readonly VolumeFacts[]
}

/**
 * What stands that a rule is about. A measured value begins where the rule says, and goes on standing until it has passed the value at
 * which it ends.
 * @param told keys that have been told and stand
 */
export function mattersOf(rule: Rule, facts: Facts, told: ReadonlySet<string>): Matter[] {
  const { beginsAt, subject } = rule
  if (subject === 'findings')
    return facts.findings
      .filter(({ gravity }) => gravity === 'now' || (rule.gravity === 'soon' && gravity === 'soon'))
      .map(({ key, gravity, what, why, remedy, href }) => ({ key, gravity, title: what, why, remedy, href }))
  if (beginsAt === null) return []
  const endsAt = rule.endsAt ?? beginsAt
  const over = (key: string, value: number) => value >= (told.has(key) ? endsAt : beginsAt)
  const under = (key: string, value: number) => value <= (told.has(key) ? endsAt : beginsAt)
  if (subject === 'fill')
    return facts.pools.flatMap(({ id, name, fillRatio }) => {
      const key = `fill/${id}`
      return over(key, fillRatio * 100)
        ? [poolMatter(key, id, `${name} is ${(fillRatio * 100).toFixed(1)}% full`, `Told from ${beginsAt}% on.`)]
        : []
    })
  if (subject === 'days to limit')
    return facts.pools.flatMap(({ id, name, daysToLimit }) => {
      const key = `days/${id}`
      return daysToLimit !== null && under(key, daysToLimit)
        ? [
            poolMatter(
              key,
              id,
              `${name} reaches its limit in ${countWords(daysToLimit, 'day', 'days')}`,
              `Told from ${beginsAt} days on.`,
            ),
          ]
        : []
    })
  if (subject === 'latency')
    return facts.volumes.flatMap(({ id, name, p95Milliseconds }) => {
      const key = `latency/${id}`
      return over(key, p95Milliseconds)
        ? [
            {
              key,
              gravity: 'soon' as const,
              title: `${name} answers within ${p95Milliseconds.toFixed(1)} ms in 95 of 100 minutes`,
              why: `Told from ${beginsAt} ms on.`,
              remedy: 'See who is loud beside it.',
              href: `/watch/performance?sel=${id}`,
            },
          ]
        : []
    })
  return []
}

const poolMatter = (key: string, id: string, title: string, why: string): Matter => ({
  key,
  gravity: 'soon',
  title,
  why,
  remedy: 'See what would give it a later day.',
  href: `/watch?sel=${id}`,
})
