import { provisionableBytes, type Pool, type System } from '../estate'
import { arrange, type Finding } from '../findings'
import { formatBytes, formatSeconds } from '../units'

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

/** What stands about Wendrel itself and its changes. */
export interface OwnState {
  /** Since a worker last said that it runs (seconds); undefined where none ever has. */
  readonly workerSilentSeconds: number | undefined
  readonly now: Date
  readonly unproven: readonly { readonly id: string; readonly title: string; readonly why: string }[]
}

const fullRatio = 0.9
/** A worker says every ten seconds that it runs. */
const silentSeconds = 45
/** A system is read every ten seconds, a large one in a minute or two. */
const oldSeconds = 300

/** What Today puts first: systems that are silent, pools that are hurt or nearly full. Gravest first. */
export function todayFindings(
  systems: readonly System[],
  pools: readonly Pool[],
  found: readonly FoundThere[] = [],
  own?: OwnState,
): TodayFinding[] {
  const isWorkerSilent = own !== undefined && (own.workerSilentSeconds ?? Infinity) > silentSeconds
  const silent = systems
    // One whose edge is a finding of its own is told by that.
    .filter(
      system =>
        system.reach !== 'answering' &&
        !found.some(each => each.systemId === system.id && edgeChecks.has(each.finding.check)),
    )
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
  const all = [
    ...(own === undefined ? [] : ownFindings(systems, own, isWorkerSilent)),
    ...silent,
    ...there,
    ...hurt,
    ...full,
  ]
  return [...all.filter(each => each.gravity === 'now'), ...all.filter(each => each.gravity === 'soon')]
}

const edgeChecks = new Set(['certificate-changed', 'other-identity'])

/** What hinders all else: nobody works, what is shown is old, or a change is neither proven nor taken back. */
function ownFindings(systems: readonly System[], { workerSilentSeconds, now, unproven }: OwnState, isSilent: boolean) {
  const isOld = (system: System) =>
    system.reach === 'answering' &&
    (system.seenAt === null || now.getTime() - Date.parse(system.seenAt) > oldSeconds * 1000)
  return [
    ...(isSilent
      ? [
          {
            gravity: 'now' as const,
            what: 'No worker runs',
            why:
              workerSilentSeconds === undefined
                ? 'None has ever said that it does.'
                : `The last one was heard ${formatSeconds(workerSilentSeconds)} ago.`,
            remedy: 'Changes wait, and nothing is read from the systems, until one is started.',
            href: '/changes?state=running',
          },
        ]
      : systems.filter(isOld).map(system => ({
          gravity: 'now' as const,
          what: `What is shown of ${system.name} is old`,
          why: `It was last read ${system.seenAt === null ? 'never' : `${formatSeconds((now.getTime() - Date.parse(system.seenAt)) / 1000)} ago`}.`,
          remedy: 'Look whether its worker has too much to do.',
          href: `/build/systems/${system.id}`,
        }))),
    ...unproven.map(({ id, title, why }) => ({
      gravity: 'now' as const,
      what: `${title}: carried out, but not proven`,
      why,
      remedy: 'Mend what did not hold and prove it again, or undo what it has made.',
      href: `/changes/${id}`,
    })),
  ]
}
