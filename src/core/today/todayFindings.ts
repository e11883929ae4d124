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
  const all = [
    ...(own === undefined ? [] : [...workerFindings(systems, own), ...own.unproven.map(unprovenFinding)]),
    ...systems.filter(system => isSilent(system, found)).map(silentFinding),
    ...rootFindings(found),
    ...pools.filter(isHurt).map(hurtFinding),
    ...pools.flatMap(fullFinding),
  ]
  return [...all.filter(each => each.gravity === 'now'), ...all.filter(each => each.gravity === 'soon')]
}

const edgeChecks = new Set(['certificate-changed', 'other-identity'])

/** One whose edge is a finding of its own is told by that. */
const isSilent = ({ id, reach }: System, found: readonly FoundThere[]) =>
  reach !== 'answering' && !found.some(each => each.systemId === id && edgeChecks.has(each.finding.check))

const silentFinding = ({ id, name, reachWhy }: System): TodayFinding => ({
  gravity: 'now',
  what: `${name} does not answer`,
  why: reachWhy ?? '',
  remedy: 'What is shown of it is what it last said.',
  href: `/build/systems/${id}`,
})

const isHurt = ({ state, failureDomain }: Pool) =>
  (state === 'degraded' || state === 'failed') && failureDomain === null

const hurtFinding = ({ name, state, systemId }: Pool): TodayFinding => ({
  gravity: 'now',
  what: `${name} is ${state}`,
  why: 'It has lost a drive.',
  remedy: 'Look at its bays.',
  href: `/build/systems/${systemId}`,
})

function fullFinding(pool: Pool): TodayFinding[] {
  const room = provisionableBytes(pool)
  const fill = room === 0n ? 0 : Number(pool.writtenBytes) / Number(room)
  if (fill < fullRatio) return []
  const left = room - pool.writtenBytes
  return [
    {
      gravity: 'soon',
      what: `${pool.name} is ${(fill * 100).toFixed(0)}% full`,
      why: `${formatBytes(left < 0n ? 0n : left)} is left to write; ${formatBytes(pool.provisionedBytes)} has been promised of ${formatBytes(room)}.`,
      remedy: 'Remove what is not needed, or build another pool.',
      href: `/build/systems/${pool.systemId}`,
    },
  ]
}

/** Of what was found in rows of nodes only causes are shown: what they explain stands beneath them on their own page. */
function rootFindings(found: readonly FoundThere[]): TodayFinding[] {
  const systemOf = new Map(found.map(({ finding, systemId }) => [finding.key, systemId]))
  return arrange(found.map(each => each.finding)).flatMap(
    ({ finding: { key, gravity, title, risk, remedy, draft } }) =>
      gravity === 'note'
        ? []
        : [
            {
              gravity,
              what: title,
              why: risk,
              remedy,
              href: draft?.href ?? `/build/systems/${systemOf.get(key) ?? ''}`,
            },
          ],
  )
}

/** What hinders all else: nobody works, or what is shown is old. */
function workerFindings(systems: readonly System[], { workerSilentSeconds, now }: OwnState): TodayFinding[] {
  if ((workerSilentSeconds ?? Infinity) <= silentSeconds)
    return systems.filter(system => isOld(system, now)).map(system => oldFinding(system, now))
  return [
    {
      gravity: 'now',
      what: 'No worker runs',
      why:
        workerSilentSeconds === undefined
          ? 'None has ever said that it does.'
          : `The last one was heard ${formatSeconds(workerSilentSeconds)} ago.`,
      remedy: 'Changes wait, and nothing is read from the systems, until one is started.',
      href: '/changes?state=running',
    },
  ]
}

const secondsSince = (at: string, now: Date) => (now.getTime() - Date.parse(at)) / 1000

const isOld = ({ reach, seenAt }: System, now: Date) =>
  reach === 'answering' && (seenAt === null || secondsSince(seenAt, now) > oldSeconds)

const oldFinding = ({ id, name, seenAt }: System, now: Date): TodayFinding => ({
  gravity: 'now',
  what: `What is shown of ${name} is old`,
  why: `It was last read ${seenAt === null ? 'never' : `${formatSeconds(secondsSince(seenAt, now))} ago`}.`,
  remedy: 'Look whether its worker has too much to do.',
  href: `/build/systems/${id}`,
})

/** A change that is neither proven nor taken back. */
const unprovenFinding = ({ id, title, why }: OwnState['unproven'][number]): TodayFinding => ({
  gravity: 'now',
  what: `${title}: carried out, but not proven`,
  why,
  remedy: 'Mend what did not hold and prove it again, or undo what it has made.',
  href: `/changes/${id}`,
})
