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
  const limitOf = (key: string) => (told.has(key) ? (rule.endsAt ?? beginsAt) : beginsAt)
  if (subject === 'fill') return fills(facts.pools, beginsAt, limitOf)
  if (subject === 'days to limit') return dues(facts.pools, beginsAt, limitOf)
  return subject === 'latency' ? slow(facts.volumes, beginsAt, limitOf) : []
}

/** What a value has to pass to be told: another where it has been told already. */
type LimitOf = (key: string) => number

const fills = (pools: readonly PoolFacts[], beginsAt: number, limitOf: LimitOf): Matter[] =>
  pools
    .map(pool => ({ ...pool, key: `fill/${pool.id}`, percent: pool.fillRatio * 100 }))
    .filter(({ key, percent }) => percent >= limitOf(key))
    .map(({ key, id, name, percent }) =>
      poolMatter(key, id, `${name} is ${percent.toFixed(1)}% full`, `Told from ${beginsAt}% on.`),
    )

const dues = (pools: readonly PoolFacts[], beginsAt: number, limitOf: LimitOf): Matter[] =>
  pools.flatMap(({ id, name, daysToLimit }) => {
    const key = `days/${id}`
    if (daysToLimit === null || daysToLimit > limitOf(key)) return []
    const title = `${name} reaches its limit in ${countWords(daysToLimit, 'day', 'days')}`
    return [poolMatter(key, id, title, `Told from ${beginsAt} days on.`)]
  })

const slow = (volumes: readonly VolumeFacts[], beginsAt: number, limitOf: LimitOf): Matter[] =>
  volumes
    .map(volume => ({ ...volume, key: `latency/${volume.id}` }))
    .filter(({ key, p95Milliseconds }) => p95Milliseconds >= limitOf(key))
    .map(({ key, id, name, p95Milliseconds }) => ({
      key,
      gravity: 'soon',
      title: `${name} answers within ${p95Milliseconds.toFixed(1)} ms in 95 of 100 minutes`,
      why: `Told from ${beginsAt} ms on.`,
      remedy: 'See who is loud beside it.',
      href: `/watch/performance?sel=${id}`,
    }))

const poolMatter = (key: string, id: string, title: string, why: string): Matter => ({
  key,
  gravity: 'soon',
  title,
  why,
  remedy: 'See what would give it a later day.',
  href: `/watch?sel=${id}`,
})
