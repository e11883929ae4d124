import { byId, demandsOn, limitsInWords, one, type Estate, type Volume } from '@/core/estate'
import { limitVolumesIntent, type LimitVolumesIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { advise, answers, rule } from '../../parts/checks'
import { allInUse, namedFew } from '../../parts/inUse'
import { limitedIn, limitEffects } from '../../parts/limitEffects'
import { statesLimit, triesMore } from '../../parts/limitProof'
import {
  isLifted,
  limitStep,
  noLimits,
  resetLimit,
  sameLimits,
  setLimit,
  wantedLimits,
  type LimitStep,
} from '../../parts/limits'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volumes = look.some('volumes', intent.volumeIds)
  const ids = (of: (volume: Volume) => string) => [...new Set(volumes.map(of))]
  const systems = look.some(
    'systems',
    ids(each => each.systemId),
  )
  const pools = look.some(
    'pools',
    ids(each => each.poolId),
  )
  const { limits, checks } = wantedLimits(intent)
  const measured = pools.flatMap(pool => {
    const own = volumes.filter(each => each.poolId === pool.id).map(({ id }) => id)
    return limitedIn(estate, pool, own, limits) ?? []
  })
  // One that has the limit already is left as it is.
  const altered = volumes.filter(each => !sameLimits(each.limits ?? noLimits, limits))
  return { altered, checks, intent, limits, look, measured, pools, systems, volumes }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<LimitStep> {
  const seen = see(estate, intent)
  const { altered, limits, look, measured, pools, volumes } = seen
  const many = countWords(volumes.length, 'volume', 'volumes')
  return outlined<LimitStep>(estate, {
    title: isLifted(limits) ? `Lift the limits on ${many}` : `Limit ${many} to ${limitsInWords(limits)} a second each`,
    checks: checksOf(seen),
    effects: measured.flatMap(each => limitEffects(each, pools.length > 1)),
    undo: {
      possible: true,
      how: 'Each gets back the limit that it had; hosts notice nothing but how fast they are answered.',
    },
    steps: altered.map(each => limitStep(each, limits)),
    reads: look.reads,
    claims: volumes.map(({ id }) => id),
    proof: isLifted(limits)
      ? 'The systems are asked for every limit again.'
      : `The systems are asked for every limit again, and hosts that see the first ${tried} read from them as fast as they can for five seconds each: they must not get more.`,
  })
}

/** So many are tried by reading: each takes its seconds. */
const tried = 3

function checksOf({ altered, checks, intent, limits, measured, pools, systems, volumes }: Seen): readonly PlanCheck[] {
  const without = volumes.filter(each => each.limits === null)
  return [
    allInUse(volumes, intent.volumeIds.length),
    ...systems.map(answers),
    rule(
      'takes-limits',
      without.length === 0,
      'Their systems take limits.',
      `No limits are taken on ${namedFew(without)}.`,
      { remedy: 'Leave them out.' },
    ),
    ...checks,
    rule(
      'other',
      volumes.length === 0 || altered.length > 0,
      altered.length === volumes.length
        ? 'It is another limit than they have.'
        : `${countWords(volumes.length - altered.length, 'has', 'have')} that limit already.`,
      'They have that limit already.',
      { field: 'mostRequests' },
    ),
    advise(
      'measured',
      measured.length === pools.length,
      'What their pools were asked for has been measured.',
      'What some of their pools were asked for has not been measured yet: what it does to others there is not known.',
    ),
    ...(isLifted(limits) ? [] : [waitingCheck(measured)]),
  ]
}

function waitingCheck(measured: Seen['measured']): PlanCheck {
  const waiting = measured.filter(({ found }) => found.passedPerSecond < found.askedPerSecond * 0.999)
  return advise(
    'own-hosts',
    waiting.length === 0,
    'In the slowest hours of the last week nobody would have waited.',
    `In the slowest hour of ${waiting.map(({ pool }) => pool.name).join(', ')} their own hosts would have waited.`,
    { field: 'mostRequests' },
  )
}

/** The same limit for each of several volumes, in one change. */
export const limitVolumes: ChangeKind<Intent, LimitStep> = {
  ...limitVolumesIntent,
  needs: ({ volumeIds }) => volumeIds.map(id => one('volumes', id)),
  needsAlso: ({ volumes }) => [...new Set(volumes.map(({ poolId }) => poolId))].map(demandsOn),
  plan,
  runStep: (step, _context, ports) => setLimit(step, ports),
  undoStep: (step, _context, ports) => resetLimit(step, ports),
  async prove(_intent, made, _facts, ports) {
    const estate = await ports.estate()
    const evidence = []
    for (const [index, { step }] of made.steps.entries()) {
      const volume = estate.volumes.find(each => each.naa === step.naa)
      evidence.push(await statesLimit(step, volume?.name ?? step.naa, ports))
      if (volume === undefined || index >= tried) continue
      const found = await triesMore(step, volume.id, estate, ports)
      evidence.push(...found.map(each => ({ ...each, claim: `${volume.name}: ${each.claim}` })))
    }
    return evidence
  },
  collects: ({ volumeIds }, { volumes }) => [...new Set(volumeIds.flatMap(id => byId(volumes, id)?.systemId ?? []))],
  settles: made => made.steps.map(({ step }) => ({ kind: 'volumes', of: step, fields: ['limits'] })),
  reverse: () => undefined,
}
