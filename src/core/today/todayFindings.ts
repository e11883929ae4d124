import { limitRatio, type NoOutlook, type Outlook } from '../capacity'
import { provisionableBytes, type Pool, type System } from '../estate'
import { arrange, type Finding } from '../findings'
import { countAtStart, countWords, formatBytes, formatSeconds } from '../units'

export interface TodayFinding {
  /** The same each time the same thing is so. */
  readonly key: string
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
  /** Volumes that answered slower in the last day than is promised, and the one that misses most; absent where none did. */
  readonly slow?: {
    readonly count: number
    readonly worst: {
      readonly id: string
      readonly name: string
      readonly p95Seconds: number
      readonly promisedSeconds: number
    }
  }
}

/** Drives take weeks to be bought: what is due sooner needs somebody today (days). */
const dueSoonDays = 45
const dayMilliseconds = 86_400_000
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
  outlooks: ReadonlyMap<string, Outlook | NoOutlook> = new Map(),
): TodayFinding[] {
  const all = [
    ...(own === undefined ? [] : [...workerFindings(systems, own), ...own.unproven.map(unprovenFinding)]),
    ...systems.filter(system => isSilent(system, found)).map(silentFinding),
    ...rootFindings(found),
    ...pools.filter(isHurt).map(hurtFinding),
    ...pools.flatMap(fullFinding),
    ...dueFindings(pools, outlooks),
    ...slowFinding(own),
  ]
  return [...all.filter(each => each.gravity === 'now'), ...all.filter(each => each.gravity === 'soon')]
}

const edgeChecks = new Set(['certificate-changed', 'other-identity'])

/** One whose edge is a finding of its own is told by that. */
const isSilent = ({ id, reach }: System, found: readonly FoundThere[]) =>
  reach !== 'answering' && !found.some(each => each.systemId === id && edgeChecks.has(each.finding.check))

const silentFinding = ({ id, name, reachWhy }: System): TodayFinding => ({
  key: `silent/${id}`,
  gravity: 'now',
  what: `${name} does not answer`,
  why: reachWhy ?? '',
  remedy: 'What is shown of it is what it last said.',
  href: `/build/systems/${id}`,
})

const isHurt = ({ state, failureDomain }: Pool) =>
  (state === 'degraded' || state === 'failed') && failureDomain === null

const hurtFinding = ({ id, name, state, systemId }: Pool): TodayFinding => ({
  key: `hurt/${id}`,
  gravity: 'now',
  what: `${name} is ${state}`,
  why: 'It has lost a drive.',
  remedy: 'Look at its bays.',
  href: `/build/systems/${systemId}`,
})

function fullFinding(pool: Pool): TodayFinding[] {
  const room = provisionableBytes(pool)
  const fill = room === 0n ? 0 : Number(pool.writtenBytes) / Number(room)
  if (fill < limitRatio) return []
  const left = room - pool.writtenBytes
  return [
    {
      key: `full/${pool.id}`,
      gravity: 'soon',
      what: `${pool.name} is ${(fill * 100).toFixed(0)}% full`,
      why: `${formatBytes(left < 0n ? 0n : left)} is left to write; ${formatBytes(pool.provisionedBytes)} has been promised of ${formatBytes(room)}.`,
      remedy: 'Remove what is not needed, or build another pool.',
      href: `/build/systems/${pool.systemId}`,
    },
  ]
}

/** Pools that are not full yet, but soon; the soonest first. */
function dueFindings(pools: readonly Pool[], outlooks: ReadonlyMap<string, Outlook | NoOutlook>): TodayFinding[] {
  const due = pools.flatMap(pool => {
    const outlook = outlooks.get(pool.id)
    if (outlook === undefined || 'why' in outlook || outlook.usedBytes >= outlook.limitBytes) return []
    const { p50 } = outlook.reachesLimit
    return p50 !== null && p50 <= dueSoonDays ? [{ pool, outlook, days: p50 }] : []
  })
  return due
    .sort((a, b) => a.days - b.days)
    .map(({ pool, outlook, days }) => ({
      key: `due/${pool.id}`,
      gravity: 'soon',
      what: `${pool.name} is nine tenths full in ${countWords(days, 'day', 'days')}`,
      why: `It grows by ${formatBytes(BigInt(Math.round(outlook.slopeBytesPerDay)))} a day and reaches ${formatBytes(BigInt(Math.round(outlook.limitBytes)))} on ${dayOf(outlook.today + days * dayMilliseconds)}.`,
      remedy: 'See what would give it a later day.',
      href: `/watch?sel=${pool.id}`,
    }))
}

function slowFinding(own: OwnState | undefined): TodayFinding[] {
  if (own?.slow === undefined) return []
  const { count, worst } = own.slow
  const milliseconds = (seconds: number) => `${(seconds * 1000).toFixed(1)} ms`
  return [
    {
      key: 'slow',
      gravity: 'soon',
      what: `${countAtStart(count, 'volume answers', 'volumes answer')} slower than promised`,
      why: `Of ${worst.name} 95 of 100 minutes of the last day stayed within ${milliseconds(worst.p95Seconds)}; ${milliseconds(worst.promisedSeconds)} is promised.`,
      remedy: 'See who is loud beside it.',
      href: `/watch/performance?sel=${worst.id}`,
    },
  ]
}

const dayOf = (at: number) =>
  new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' })

/** Of what was found in rows of nodes only causes are shown: what they explain stands beneath them on their own page. */
function rootFindings(found: readonly FoundThere[]): TodayFinding[] {
  const systemOf = new Map(found.map(({ finding, systemId }) => [finding.key, systemId]))
  return arrange(found.map(each => each.finding)).flatMap(
    ({ finding: { key, gravity, title, risk, remedy, draft } }) =>
      gravity === 'note'
        ? []
        : [
            {
              key,
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
      key: 'no-worker',
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
  key: `old/${id}`,
  gravity: 'now',
  what: `What is shown of ${name} is old`,
  why: `It was last read ${seenAt === null ? 'never' : `${formatSeconds(secondsSince(seenAt, now))} ago`}.`,
  remedy: 'Look whether its worker has too much to do.',
  href: `/build/systems/${id}`,
})

/** A change that is neither proven nor taken back. */
const unprovenFinding = ({ id, title, why }: OwnState['unproven'][number]): TodayFinding => ({
  key: `unproven/${id}`,
  gravity: 'now',
  what: `${title}: carried out, but not proven`,
  why,
  remedy: 'Mend what did not hold and prove it again, or undo what it has made.',
  href: `/changes/${id}`,
})
