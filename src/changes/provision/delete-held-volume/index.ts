import { deleteHeldVolumeIntent, type DeleteHeldVolumeIntent as Intent } from '@/core/intents'
import { type Estate, one } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { fact, firstStep } from '../../parts/known'

type Step = Readonly<{ step: 'delete'; systemId: string; volumeLocator: string; naa: string }>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent, now: Date) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const isOver = volume?.holdingUntil != null && Date.parse(volume.holdingUntil) <= now.getTime()
  const claims = volume === undefined ? [] : [volume.id]
  return { claims, isOver, look, pool, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent, now)
  const { claims, look, volume } = seen

  return outlined<Step>(estate, {
    title: `Delete ${volume?.name ?? 'a volume'} after its holding`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: ['Nothing brings it back after this.'],
    undo: { possible: false, how: 'It cannot be undone.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof: 'The system is asked for the volume again: it must be gone.',
  })
}

function checksOf({ isOver, system }: Seen): readonly PlanCheck[] {
  return [
    rule(
      'holding-over',
      isOver,
      'Its time in holding is over.',
      'Its time in holding is not over: it can still be brought back.',
    ),
    ...(system === undefined ? [] : [answers(system)]),
  ]
}

function effectsOf({ pool, volume }: Seen): readonly Effect[] {
  return pool === undefined
    ? []
    : [
        {
          figure: 'writtenBytes',
          label: `Written in ${pool.name}`,
          unit: 'bytes',
          before: `${pool.writtenBytes}`,
          after: `${pool.writtenBytes - (volume?.writtenBytes ?? 0n)}`,
        },
      ]
}

function stepsOf({ system, volume }: Seen): Outlined<Step>[] {
  if (system === undefined || volume === undefined) return []
  return [
    {
      words: 'Delete it from its pool',
      seconds: 0.5,
      step: {
        step: 'delete',
        systemId: system.id,
        volumeLocator: volume.locator,
        naa: volume.naa,
      },
    },
  ]
}

/** Drafted by the worker alone, when a holding has ended. */
export const deleteHeldVolume: ChangeKind<Intent, Step> = {
  ...deleteHeldVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  async runStep(step, _context, ports) {
    await (await ports.of(step.systemId, 'volumes')).remove(step.volumeLocator, step.naa)
    await ports.records.collect(step.systemId)
    await ports.records.gone(step.systemId, [step.volumeLocator])
    return { systemId: step.systemId, volumeLocator: step.volumeLocator }
  },
  undoStep: async () => 'The volume has been deleted.',
  async prove(_intent, made, facts, ports) {
    const stated = await (await ports.of(fact(facts, 'systemId'), 'volumes')).at(fact(facts, 'volumeLocator'))
    const { naa } = firstStep(made)
    return [
      {
        claim: 'The volume is gone',
        // Another may stand at its place by now: it is known by its name.
        holds: naa !== '' && stated?.naa !== naa,
        measured: { deleted: naa, stated: stated?.naa ?? 'nothing' },
      },
    ]
  },
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  reverse: () => undefined,
}
