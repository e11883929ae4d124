import { provisionableBytes, type Pool, type System } from '../estate'
import { formatBytes } from '../units'

export interface TodayFinding {
  readonly gravity: 'now' | 'soon'
  readonly what: string
  readonly why: string
  readonly remedy: string
  readonly href: string
}

const fullRatio = 0.9

/** What Today puts first: systems that are silent, pools that are hurt or nearly full. Gravest first. */
export function todayFindings(systems: readonly System[], pools: readonly Pool[]): TodayFinding[] {
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
    .filter(pool => pool.state === 'degraded' || pool.state === 'failed')
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
  return [...silent, ...hurt, ...full]
}
