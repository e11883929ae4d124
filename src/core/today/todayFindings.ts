import { provisionableBytes, type Pool, type System } from '../estate'
import { arrange, type Finding } from '../findings'
import { formatBytes } from '../units'

export interface TodayFinding {
  readonly gravity: 'now' | 'soon'
  readonly what: string
  readonly why: string
  readonly remedy: string
  readonly href: string
}

/** A finding of a row of nodes that no exception covers. */
interface FoundThere {
  readonly finding: Finding
  readonly systemId: string
}

const fullRatio = 0.9

/** What Today puts first: systems that are silent, pools that are hurt or nearly full. Gravest first. */
export function todayFindings(
  systems: readonly System[],
  pools: readonly Pool[],
  found: readonly FoundThere[] = [],
): TodayFinding[] {
  const silent = systems
    .filter(system => system.reach !== 'answering')
    .map(system => ({
      gravity: 'now' as const,
      what: `${system.name} does not answer`,
      why: system.reachWhy ?? '',
      remedy: 'What is shown of it is what it last said.',
      href: `/build/systems/${system.id}`,
    }))
  const hurt = pools
    .filter(pool => (pool.state === 'degraded' || pool.state === 'failed') && pool.failureDomain === null)
    .map(pool => ({
      gravity: 'now' as const,
      what: `${pool.name} is ${pool.state}`,
      why: 'It has lost a drive.',
      remedy: 'Look at its bays.',
      href: `/build/systems/${pool.systemId}`,
    }))
  const full = pools.flatMap(pool => {
    const room = provisionableBytes(pool)
    const fill = room === 0n ? 0 : Number(pool.writtenBytes) / Number(room)
    if (fill < fullRatio) return []
    const left = room - pool.writtenBytes
    return [
      {
        gravity: 'soon' as const,
        what: `${pool.name} is ${(fill * 100).toFixed(0)}% full`,
        why: `${formatBytes(left < 0n ? 0n : left)} is left to write; ${formatBytes(pool.provisionedBytes)} has been promised of ${formatBytes(room)}.`,
        remedy: 'Remove what is not needed, or build another pool.',
        href: `/build/systems/${pool.systemId}`,
      },
    ]
  })
  // Of what was found in rows of nodes only causes are shown: what they explain stands beneath them on their own page.
  const roots = arrange(found.map(each => each.finding)).map(tree => tree.finding)
  const there = roots.flatMap(finding => {
    const systemId = found.find(each => each.finding.key === finding.key)?.systemId ?? ''
    return finding.gravity === 'note'
      ? []
      : [
          {
            gravity: finding.gravity,
            what: finding.title,
            why: finding.risk,
            remedy: finding.remedy,
            href: finding.draft?.href ?? `/build/systems/${systemId}`,
          },
        ]
  })
  const all = [...silent, ...there, ...hurt, ...full]
  return [...all.filter(each => each.gravity === 'now'), ...all.filter(each => each.gravity === 'soon')]
}
