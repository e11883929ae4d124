import { limitsInWords, type Estate, type Pool, type Volume, type VolumeLimits } from '@/core/estate'
import type { LimitVolumeIntent as Intent } from '@/core/intents'
import { driveStation, underLimits, type Limited } from '@/core/performance'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { formatBytes, parseBytes } from '@/core/units'
import { advise, answers, must, rule } from '../../parts/checks'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

export type Step = Readonly<{
  step: 'limit'
  systemId: string
  locator: string
  naa: string
  from: VolumeLimits
  to: VolumeLimits
}>

/** Below that a host would not start from it in a day. */
const leastRequests = 10
const leastBytes = 64n * 1024n
const none: VolumeLimits = { requestsPerSecond: null, bytesPerSecond: null }

/** What is asked for, and the checks that say what cannot be read. */
function wanted({ mostRequests, mostThroughput }: Intent): {
  readonly limits: VolumeLimits
  readonly checks: readonly PlanCheck[]
} {
  const parsed = mostThroughput.trim() === '' ? undefined : parseBytes(mostThroughput.replace(/\s*\/\s*s$/, ''))
  const bytes = parsed !== undefined && 'bytes' in parsed ? parsed.bytes : undefined
  const limits = { requestsPerSecond: mostRequests, bytesPerSecond: bytes === undefined ? null : Number(bytes) }
  return {
    limits,
    checks: [
      rule(
        'requests',
        mostRequests === null || (Number.isInteger(mostRequests) && mostRequests >= leastRequests),
        mostRequests === null
          ? 'Its requests are not limited.'
          : `${mostRequests.toLocaleString('en')} requests a second.`,
        `A limit is a whole number of at least ${leastRequests} requests a second.`,
        { field: 'mostRequests' },
      ),
      ...(parsed !== undefined && !('bytes' in parsed)
        ? [must(parsed.rule, false, parsed.why, { field: 'mostThroughput' })]
        : [
            rule(
              'throughput',
              bytes === undefined || bytes >= leastBytes,
              bytes === undefined ? 'Its throughput is not limited.' : `${formatBytes(bytes)} a second.`,
              `A limit is at least ${formatBytes(leastBytes)} a second.`,
              { field: 'mostThroughput' },
            ),
          ]),
    ],
  }
}

const same = (a: VolumeLimits, b: VolumeLimits) =>
  a.requestsPerSecond === b.requestsPerSecond && a.bytesPerSecond === b.bytesPerSecond

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const { limits, checks } = wanted(intent)
  const from = volume?.limits ?? none
  const name = volume?.name ?? 'a volume'
  const measured = measuredWith(estate, volume, pool, limits)
  return outlined<Step>(estate, {
    title: same(limits, none) ? `Lift the limit on ${name}` : `Limit ${name} to ${limitsInWords(limits)} a second`,
    checks: [
      rule('volume', volume?.state === 'in use', 'The volume is in use.', 'Choose a volume that is in use.'),
      ...(system === undefined ? [] : [answers(system)]),
      rule(
        'takes-limits',
        volume === undefined || volume.limits !== null,
        'Its system takes limits.',
        `${system?.name ?? 'Its system'} takes no limits on volumes.`,
        { remedy: 'Move it to a pool of its own, or a loud neighbour to another.' },
      ),
      ...checks,
      rule('other', !same(limits, from), 'It is another limit than it has.', 'It has that limit already.', {
        field: 'mostRequests',
      }),
      ...measuredChecks(name, measured, same(limits, none)),
    ],
    effects: [
      {
        figure: 'limit',
        label: 'At most, a second',
        unit: 'words',
        before: limitsInWords(from),
        after: limitsInWords(limits),
      },
      ...(measured === undefined ? [] : effectsOf(measured.found)),
    ],
    undo: {
      possible: true,
      how: 'Its old limit can be set again; hosts notice nothing but how fast they are answered.',
    },
    steps:
      volume === undefined
        ? []
        : [
            {
              step: {
                step: 'limit',
                systemId: volume.systemId,
                locator: volume.locator,
                naa: volume.naa,
                from,
                to: limits,
              },
              words: same(limits, none)
                ? `Lift the limit on ${name}`
                : `Let ${name} be asked for ${limitsInWords(limits)} a second at most`,
              seconds: 0.3,
            },
          ],
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id],
    proof: same(limits, none)
      ? 'The system is asked for its limit again.'
      : 'The system is asked for its limit again, and a host that sees it reads as fast as it can for five seconds: it must not get more.',
  })
}

/** The hour in which its pool was slowest, as it was and as it would have been. */
function measuredWith(estate: Estate, volume: Volume | undefined, pool: Pool | undefined, limits: VolumeLimits) {
  const demand = estate.poolDemands.find(each => each.poolId === pool?.id)
  if (volume === undefined || pool === undefined || demand === undefined || demand.demands.length === 0)
    return undefined
  return { at: demand.at, found: underLimits(driveStation(pool), demand.demands, volume.id, limits) }
}

const atMost = (limited: Limited) => limited.passedPerSecond < limited.askedPerSecond * 0.999

function measuredChecks(
  name: string,
  measured: ReturnType<typeof measuredWith>,
  isLifted: boolean,
): readonly PlanCheck[] {
  if (measured === undefined)
    return [
      advise(
        'measured',
        false,
        '',
        'What its pool was asked for has not been measured yet: what it does to others is not known.',
      ),
    ]
  const { found, at } = measured
  const hour = `${at.slice(0, 13).replace('T', ' ')}:00 UTC`
  if (isLifted)
    return [
      advise(
        'measured',
        true,
        `What it would ask for without a limit shows once it has none; it was asked for ${count(found.askedPerSecond)} a second at ${hour}.`,
        '',
      ),
    ]
  return [
    advise(
      'own-hosts',
      !atMost(found),
      `In the slowest hour of its pool's last week (${hour}) it was asked for ${count(found.askedPerSecond)} a second: nobody would have waited.`,
      `In the slowest hour of its pool's last week (${hour}) ${name} was asked for ${count(found.askedPerSecond)} a second and would have answered ${count(found.passedPerSecond)}: its own hosts would have waited.`,
      { field: 'mostRequests' },
    ),
  ]
}

const count = (requests: number) => Math.round(requests).toLocaleString('en')

const milliseconds = (seconds: number) => `${(seconds * 1000).toFixed(2)} ms`

const effectsOf = (found: Limited): readonly Effect[] => [
  {
    figure: 'passed',
    label: 'Its requests a second, in the slowest hour',
    unit: 'count',
    before: Math.round(found.askedPerSecond),
    after: Math.round(found.passedPerSecond),
  },
  {
    figure: 'busy',
    label: 'The drives of its pool are busy',
    unit: 'ratio',
    before: found.utilizationBefore,
    after: found.utilizationAfter,
  },
  ...(found.responseAfter === null
    ? []
    : [
        {
          figure: 'response',
          label: 'A request of a neighbour to the drives takes',
          unit: 'words' as const,
          before: found.responseBefore === null ? 'longer and longer' : milliseconds(found.responseBefore),
          after: milliseconds(found.responseAfter),
        },
      ]),
]
