import { byId, one, those, type Estate, type Pool, type Volume } from '@/core/estate'
import { refillMirrorIntent, type RefillMirrorIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Facts } from '../../ChangeKind'
import { begunOnce } from '../../parts/begunOnce'
import { rule } from '../../parts/checks'
import { driveShare } from '../../parts/driveShare'
import { freeBytesOf } from '../../parts/fill'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { mirroredBytes, mirroredChecks, mirroredEnds } from '../../parts/mirrorChecks'
import { endsOf, MirrorFailed, proveAlike, type Ends } from '../../parts/mirrors'
import { outlined } from '../../parts/outline'
import { waitForTask } from '../../parts/waitForTask'

type Step = Readonly<{ step: 'refill'; farLocator: string; ratePercent: number } & Ends>

function plan(estate: Estate, { volumeId, ratePercent }: Intent): Plan<Step> {
  const look = lookInto(estate)
  const ends = mirroredEnds(look, estate, volumeId)
  const { far, toSystem, volume } = ends
  const there = toSystem?.name ?? 'the other system'
  const from = look.one('pools', volume?.poolId)
  const to = look.one('pools', far?.poolId)
  const bytes = mirroredBytes(volume)
  return outlined<Step>(estate, {
    title: `Fill the mirror of ${volume?.name ?? 'a volume'} again`,
    checks: [
      ...mirroredChecks(ends),
      ...stateChecks(volume, there),
      ...(to === undefined || far === undefined ? [] : placeChecks(to, bytes - mirroredBytes(far))),
    ],
    effects: [
      {
        ...{ figure: 'copy', label: `${there} holds`, unit: 'words' },
        ...{ before: 'an older state', after: 'all that is written' },
      },
    ],
    oneWay: [
      `What ${there} holds is given up for what is read over, from the beginning: until then it has no copy that could be used.`,
    ],
    undo: { possible: true, how: 'Stopped, the mirror stays broken; its hosts notice nothing.' },
    steps:
      volume === undefined || toSystem === undefined || far === undefined
        ? []
        : [
            {
              words: `Fill it again on ${there}`,
              ...{ seconds: 1, bytes },
              parts: [from, to].flatMap(pool => (pool === undefined ? [] : [driveShare(pool, ratePercent)])),
              step: { step: 'refill', ...endsOf(volume, toSystem), farLocator: far.locator, ratePercent },
            },
          ],
    reads: look.reads,
    claims: [volume?.id, far?.id].filter(id => id !== undefined),
    proof: 'Both systems are asked: each must say that it holds what the other does, under the same WWN.',
  })
}

/** That there is something to fill, and that nobody fills it already. */
const stateChecks = (volume: Volume | undefined, there: string): readonly PlanCheck[] => {
  const state = volume?.mirror?.state
  return [
    rule('broken', state !== 'alike', `${there} is behind.`, `${there} holds the same.`, {
      remedy: 'Nothing is to be done.',
    }),
    rule('not-filling', state !== 'filling', 'It is not being filled.', 'It is being filled already.', {
      remedy: 'Wait for the change that fills it, or stop it.',
    }),
  ]
}

/** That the pool in which the other end stands can take what is more now. */
const placeChecks = (to: Pool, moreBytes: bigint): readonly PlanCheck[] => [
  rule(
    'pool',
    to.state === 'fine' || to.state === 'degraded',
    `${to.name} is ${to.state}.`,
    `${to.name} is ${to.state}.`,
    {
      remedy: 'Mend that pool first, or end the mirror and make another.',
    },
  ),
  rule(
    'fits',
    moreBytes <= freeBytesOf(to),
    `${to.name} has ${formatBytes(freeBytesOf(to))} left.`,
    `${to.name} has ${formatBytes(freeBytesOf(to))} left; ${formatBytes(moreBytes)} more would come.`,
    { remedy: 'Make room there first.' },
  ),
]

async function refill(step: Step, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { systemId, toSystemId, volumeLocator, naa, ratePercent } = step
  const mirrors = await ports.of(systemId, 'mirrors')
  const state = async () => (await mirrors.of(volumeLocator))?.state
  if ((await state()) !== 'alike') {
    const latest = () => mirrors.workOn(volumeLocator)
    const begin = () => mirrors.refill(volumeLocator, naa, ratePercent)
    const task = await begunOnce('refilledAfter', facts, ports, latest, begin)
    const isDone = async () => (await state()) === 'alike'
    await waitForTask({ systemId, task, words: 'Filling the mirror', isDone }, ports)
  }
  if ((await state()) !== 'alike') throw new MirrorFailed('Its system does not say that both ends hold the same.')
  await ports.records.collect(toSystemId)
  return { systemId, toSystemId }
}

/** Fills a mirror that was broken, by a line or a system that was away, again. */
export const refillMirror: ChangeKind<Intent, Step> = {
  ...refillMirrorIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  needsAlso: ({ volumes }, { volumeId }) => [those('volumes', 'naa', byId(volumes, volumeId)?.naa)],
  plan,
  runStep: (step, { facts }, ports) => refill(step, facts, ports),
  async undoStep({ systemId, volumeLocator }, _context, ports) {
    const mirrors = await ports.of(systemId, 'mirrors')
    const now = await mirrors.of(volumeLocator)
    const task = now?.state === 'filling' ? await mirrors.workOn(volumeLocator) : null
    if (task !== null) await (await ports.of(systemId, 'tasks')).stop(task)
    return now?.state === 'alike' ? 'Both ends hold the same: that is left as it is.' : undefined
  },
  prove: (_intent, made, _facts, ports) => proveAlike(firstStep(made), firstStep(made).farLocator, ports),
  collects: (_intent, _estate, { systemId, toSystemId }) => [systemId, toSystemId].filter(each => each !== undefined),
  reverse: () => undefined,
}
