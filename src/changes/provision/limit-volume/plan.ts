import { limitsInWords, type Estate } from '@/core/estate'
import type { LimitVolumeIntent as Intent } from '@/core/intents'
import type { Limited } from '@/core/performance'
import type { Plan, PlanCheck } from '@/core/plan'
import { advise, answers, rule } from '../../parts/checks'
import { hourOf, limitedIn, limitEffects, type LimitedIn } from '../../parts/limitEffects'
import { isLifted, limitStep, noLimits, sameLimits, wantedLimits, type LimitStep } from '../../parts/limits'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const { limits, checks } = wantedLimits(intent)
  return {
    ...{ look, volume, system, limits, checks },
    from: volume?.limits ?? noLimits,
    name: volume?.name ?? 'a volume',
    isLifted: isLifted(limits),
    measured: volume === undefined ? undefined : limitedIn(estate, pool, [volume.id], limits),
  }
}
type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent): Plan<LimitStep> {
  const seen = see(estate, intent)
  const { look, volume, limits, from, name, isLifted, measured } = seen
  return outlined<LimitStep>(estate, {
    title: isLifted ? `Lift the limit on ${name}` : `Limit ${name} to ${limitsInWords(limits)} a second`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'limit',
        label: 'At most, a second',
        unit: 'words',
        before: limitsInWords(from),
        after: limitsInWords(limits),
      },
      ...(measured === undefined ? [] : limitEffects(measured)),
    ],
    undo: {
      possible: true,
      how: 'Its old limit can be set again; hosts notice nothing but how fast they are answered.',
    },
    steps: volume === undefined ? [] : [limitStep(volume, limits)],
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id],
    proof: isLifted
      ? 'The system is asked for its limit again.'
      : 'The system is asked for its limit again, and a host that sees it reads as fast as it can for five seconds: it must not get more.',
  })
}

const checksOf = ({ volume, system, limits, checks, from, name, isLifted, measured }: Seen): PlanCheck[] => [
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
  rule('other', !sameLimits(limits, from), 'It is another limit than it has.', 'It has that limit already.', {
    field: 'mostRequests',
  }),
  ...measuredChecks(name, measured, isLifted),
]

const atMost = (limited: Limited) => limited.passedPerSecond < limited.askedPerSecond * 0.999

function measuredChecks(name: string, measured: LimitedIn | undefined, isLifted: boolean): readonly PlanCheck[] {
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
  const hour = hourOf(at)
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
