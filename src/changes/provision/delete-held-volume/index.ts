import { deleteHeldVolumeIntent, type DeleteHeldVolumeIntent as Intent } from '@/core/intents'
import { type Estate, one, those } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule, warn } from '../../parts/checks'
import { heldBack } from '../../parts/heldBack'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { fact, firstStep, itsSystem } from '../../parts/known'

type Step = Readonly<{
  step: 'delete'
  systemId: string
  volumeLocator: string
  naa: string
  /** They go before it. */
  snapshots: readonly { readonly locator: string; readonly naa: string }[]
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent, now: Date) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const isOver = volume?.holdingUntil != null && Date.parse(volume.holdingUntil) <= now.getTime()
  const claims = volume === undefined ? [] : [volume.id]
  const snapshots = estate.snapshots.filter(each => each.volumeId === volume?.id)
  return { claims, estate, intent, isOver, look, pool, snapshots, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent, now)
  const { claims, isOver, look, volume } = seen

  return outlined<Step>(estate, {
    title: isOver
      ? `Delete ${volume?.name ?? 'a volume'} after its holding`
      : `Erase ${volume?.name ?? 'a volume'} before its holding is over`,
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

function checksOf({ estate, intent, isOver, system, volume }: Seen): readonly PlanCheck[] {
  return [
    rule(
      'holding-over',
      volume?.state === 'holding' && (isOver || intent.confirmedName === volume.name),
      isOver ? 'Its time in holding is over.' : 'Its name has been given, to erase it before its time.',
      volume?.state === 'in use'
        ? 'It is in use: remove it first.'
        : 'Its time in holding is not over: it can still be brought back.',
      { field: 'confirmedName', remedy: 'Write its name to erase it all the same, or wait.' },
    ),
    ...(isOver || volume?.holdingUntil == null
      ? []
      : [
          warn(
            'early',
            false,
            `Until ${volume.holdingUntil.slice(0, 16).replace('T', ' ')} UTC it could be brought back.`,
            { field: 'confirmedName' },
          ),
        ]),
    ...(system === undefined ? [] : [answers(system)]),
    ...heldBack(estate, volume),
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

function stepsOf({ snapshots, system, volume }: Seen): Outlined<Step>[] {
  if (system === undefined || volume === undefined) return []
  return [
    {
      words: snapshots.length === 0 ? 'Delete it from its pool' : 'Delete its snapshots, and it from its pool',
      seconds: 0.5,
      step: {
        step: 'delete',
        systemId: system.id,
        volumeLocator: volume.locator,
        naa: volume.naa,
        snapshots: snapshots.map(({ locator, naa }) => ({ locator, naa })),
      },
    },
  ]
}

/** Drafted by the worker when a holding has ended, or by somebody who names the volume before. */
export const deleteHeldVolume: ChangeKind<Intent, Step> = {
  ...deleteHeldVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId), those('snapshots', 'volumeId', volumeId)],
  needsAlso: ({ snapshots }) => [those('volumes', 'cloneOfId', ...snapshots.map(({ id }) => id))],
  plan,
  async runStep(step, _context, ports) {
    if (step.snapshots.length > 0) {
      const system = await ports.of(step.systemId, 'snapshots')
      for (const { locator, naa } of step.snapshots) await system.remove(locator, naa)
    }
    await (await ports.of(step.systemId, 'volumes')).remove(step.volumeLocator, step.naa)
    await ports.records.collect(step.systemId)
    await ports.records.gone(step.systemId, [step.volumeLocator, ...step.snapshots.map(({ locator }) => locator)])
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
  collects: itsSystem,
  reverse: () => undefined,
}
